// Limits of natural frequencies: at least, or none in a band.
#include <cmath>
#include <limits>

#include "corvex/number.hpp"
#include "judge/limit_evaluation.hpp"

namespace corvex::judging {
namespace {

class FrequencyLimit : public LimitEvaluation {
 public:
  FrequencyLimit(LimitChecks& checks, const Limit& limit, const std::vector<std::size_t>& cases)
      : LimitEvaluation(checks, limit, cases) {}
  // The lowest is at least what is required.
  void lowest();
  // No natural frequency from one to the other.
  void band();
};

void FrequencyLimit::lowest() {
  ModesOptions options{.vibration = 1};
  if (!l_.cases.empty()) options.under = solution_[cases_.front()].name();
  const auto found = modes(solution_, options);
  if (!found) return not_known(found.error());
  if (found->vibration.empty()) return not_known({{"no mass can vibrate"}});
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
  v.state = met_if(f.si() >= l_.required.si());
  if (v.state == Verdict::State::met && !out.not_checked.empty()) {
    v.state = Verdict::State::not_checked;
    v.note = fmt::format("{}; covered part: {} Hz", words_of(out.not_checked), short_number(f.si(), 4));
    v.value.reset();
  }
  if (!options.under.empty()) v.load_case = options.under;
  add(std::move(v));
}

void FrequencyLimit::band() {
  const double low = l_.required.si(), high = l_.band_end->si;
  if (!(low >= 0) || !(high > low) || !std::isfinite(high))
    return fail("a band of frequencies is from a lower to a higher one", "frequency");
  ModesOptions options{.vibration = 4};
  if (!l_.cases.empty()) options.under = solution_[cases_.front()].name();
  Verdict v{.on = "the structure", .what = "frequency", .state = Verdict::State::met};
  std::optional<Modes> found;
  constexpr std::size_t most_modes = 1000;
  for (;;) {
    auto some = modes(solution_, options);
    if (!some) return not_known(some.error());
    found = std::move(some.value());
    if (found->vibration.empty()) return not_known({{"no mass can vibrate"}});
    if (found->vibration.back().frequency.si() > high || found->vibration.size() < options.vibration) break;
    if (options.vibration >= most_modes)
      return not_known({{fmt::format("there are more than {} natural frequencies below the band's end", most_modes)}});
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
  add(std::move(v));
}

}  // namespace

void check_frequency(LimitChecks& checks, const Limit& limit, const std::vector<std::size_t>& cases) {
  FrequencyLimit one(checks, limit, cases);
  limit.band_end ? one.band() : one.lowest();
}

}  // namespace corvex::judging
