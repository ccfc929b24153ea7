// Limits of natural frequencies: at least, or none in a band.
#include <cmath>
#include <limits>

#include "corvex/number.hpp"
#include "judge/limit_checker.hpp"

namespace corvex::judging {

void LimitChecker::frequency(const Limit& l, const std::vector<std::size_t>& cases) {
  ModesOptions options{.vibration = 1};
  if (!l.cases.empty()) options.under = solution_[cases.front()].name();
  const auto found = modes(solution_, options);
  if (!found) return not_known(l, found.error());
  if (found->vibration.empty()) return not_known(l, {{"no mass vibrates"}});
  Frequency f = found->vibration.front().frequency;
  Verdict v{.on = "the structure"};
  const OutOfPlaneVibration& out = found->out_of_plane;
  if (out.lowest && out.lowest->si() < f.si()) {
    f = *out.lowest;
    v.note = fmt::format("out-of-plane vibration of '{}' between its restraints (estimated)", s_[*out.member].name);
  }
  if (found->if_all_acted)
    v.note = fmt::format("without the untensioned members; {} Hz if they acted too",
                         short_number(found->if_all_acted->si(), 4));
  v.value = Quantity(f);
  v.state = met_if(f.si() >= l.required.si());
  if (v.state == Verdict::State::met && !out.not_checked.empty()) {
    v.state = Verdict::State::not_checked;
    v.note = fmt::format("{}; what is covered: {} Hz", words_of(out.not_checked), short_number(f.si(), 4));
    v.value.reset();
  }
  if (!options.under.empty()) v.load_case = options.under;
  tell(l, std::move(v));
}

void LimitChecker::not_known(const Limit& l, const Problems& why) {
  tell(l, {.on = "the structure", .state = Verdict::State::not_checked, .note = why.front().text});
}

void LimitChecker::frequency_band(const Limit& l, const std::vector<std::size_t>& cases) {
  const double low = l.required.si(), high = l.band_end->si;
  if (!(low >= 0) || !(high > low) || !std::isfinite(high))
    return fail("a band of frequencies goes from a lower to a higher one", "frequency");
  ModesOptions options{.vibration = 4};
  if (!l.cases.empty()) options.under = solution_[cases.front()].name();
  Verdict v{.on = "the structure", .what = "frequency", .state = Verdict::State::met};
  std::optional<Modes> found;
  constexpr std::size_t most_modes = 1000;
  for (;;) {
    auto some = modes(solution_, options);
    if (!some) return not_known(l, some.error());
    found = std::move(some.value());
    if (found->vibration.empty()) return not_known(l, {{"no mass vibrates"}});
    if (found->vibration.back().frequency.si() > high || found->vibration.size() < options.vibration) break;
    if (options.vibration >= most_modes)
      return not_known(l,
                       {{fmt::format("there are more than {} natural frequencies below the band's end", most_modes)}});
    options.vibration *= 4;
  }
  // The one within the band, else the nearest to it.
  double nearest = std::numeric_limits<double>::infinity();
  for (const VibrationMode& m : found->vibration) {
    const double f = m.frequency.si(), off = f < low ? low - f : f > high ? f - high : 0;
    if (off < nearest) nearest = off, v.value = Quantity(m.frequency);
  }
  v.state = met_if(nearest > 0);
  if (v.state == Verdict::State::met && (!found->out_of_plane.not_checked.empty() || found->out_of_plane.lowest)) {
    // Of members between their restraints only the lowest frequency is known.
    const OutOfPlaneVibration& out = found->out_of_plane;
    if (!out.not_checked.empty() || out.lowest->si() <= high) {
      v.state = Verdict::State::not_checked;
      v.note = out.not_checked.empty()
                   ? "out-of-plane vibration has frequencies below the band's end; describe the structure in space"
                   : words_of(out.not_checked);
      v.value.reset();
    }
  }
  if (!options.under.empty()) v.load_case = options.under;
  tell(l, std::move(v));
}

}  // namespace corvex::judging
