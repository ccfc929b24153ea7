#include "corvex/load_case.hpp"

#include "corvex/structure.hpp"

namespace corvex {
namespace {

template <class Three>
Vector si(const Three& v) {
  return {v.x.si(), v.y.si(), v.z.si()};
}

}  // namespace

template <>
LoadCase& LoadCalls<LoadCase>::target_case() {
  return self();
}
template <>
LoadCase& LoadCalls<LoadsOf>::target_case() {
  return self().load_case();
}

template <class Self>
Self& LoadCalls<Self>::at(PointId point, const Force& force) {
  add(PointLoad{point, si(force), {}});
  return self();
}

template <class Self>
Self& LoadCalls<Self>::at(PointId point, const Moment& moment) {
  add(PointLoad{point, {}, si(moment)});
  return self();
}

template <class Self>
Self& LoadCalls<Self>::on(MemberId member, Length at, const Force& force, LoadAxes axes) {
  add(MemberLoad{member, at.si(), si(force), {}, axes});
  return self();
}

template <class Self>
Self& LoadCalls<Self>::on(MemberId member, Length at, const Moment& moment, LoadAxes axes) {
  add(MemberLoad{member, at.si(), {}, si(moment), axes});
  return self();
}

template <class Self>
Self& LoadCalls<Self>::line(MemberId member, const LineForce& load) {
  return line(member, load, load);
}

template <class Self>
Self& LoadCalls<Self>::line(MemberId member, const LineForce& first, const LineForce& last) {
  return line(member, first, last, LineOptions{});
}

template <class Self>
Self& LoadCalls<Self>::line(MemberId member, const LineForce& first, const LineForce& last, Length from, Length to) {
  return line(member, first, last, LineOptions{.from = from, .to = to});
}

template <class Self>
Self& LoadCalls<Self>::line(MemberId member, const LineForce& first, const LineForce& last, const LineOptions& o) {
  const auto to = o.to ? std::optional(o.to->si()) : std::nullopt;
  add(LineLoad{member, o.from.value_or(Length{}).si(), to, si(first), si(last), o.axes, o.per});
  return self();
}

template <class Self>
Self& LoadCalls<Self>::spread(std::vector<MemberId> members, const Force& force, LoadAxes axes) {
  add(SpreadLoad{std::move(members), si(force), axes});
  return self();
}

template <class Self>
Self& LoadCalls<Self>::heat(MemberId member, Temperature change) {
  add(TemperatureLoad{member, TemperatureLoad::Across::nothing, change.si(), change.si()});
  return self();
}

template <class Self>
Self& LoadCalls<Self>::temperature_gradient_y(MemberId member, Temperature plus, Temperature minus) {
  add(TemperatureLoad{member, TemperatureLoad::Across::y, plus.si(), minus.si()});
  return self();
}

template <class Self>
Self& LoadCalls<Self>::temperature_gradient_z(MemberId member, Temperature plus, Temperature minus) {
  add(TemperatureLoad{member, TemperatureLoad::Across::z, plus.si(), minus.si()});
  return self();
}

template <class Self>
Self& LoadCalls<Self>::shorten(MemberId member, Length by) {
  add(LackOfFitLoad{member, by.si()});
  return self();
}

template <class Self>
Self& LoadCalls<Self>::settle(PointId point, const Settlement& s) {
  add(SettlementLoad{point, si(s), {s.rx.si(), s.ry.si(), s.rz.si()}});
  return self();
}

template <class Self>
Self& LoadCalls<Self>::through(const Through& place) {
  std::vector<Load>& loads = target_case().loads_;
  if (!loads.empty())
    std::visit(
        [&](auto& load) {
          if constexpr (requires { load.through; }) load.through = place;
        },
        loads.back());
  return self();
}

template <class Self>
Self& LoadCalls<Self>::add(Load load) {
  target_case().loads_.push_back(std::move(load));
  return self();
}

template <class Self>
Self& LoadCalls<Self>::replace(std::size_t number, Load load) {
  target_case().loads_.at(number) = std::move(load);
  return self();
}

template <class Self>
Self& LoadCalls<Self>::remove(std::size_t number) {
  std::vector<Load>& loads = target_case().loads_;
  (void)loads.at(number);
  loads.erase(loads.begin() + static_cast<std::ptrdiff_t>(number));
  return self();
}

template <class Self>
Self& LoadCalls<Self>::clear() {
  target_case().loads_.clear();
  return self();
}

template <class Self>
Self& LoadCalls<Self>::gravity() {
  add(GravityLoad{target_case().up_ * -gn.si()});
  return self();
}

template <class Self>
Self& LoadCalls<Self>::gravity(const Acceleration& acceleration) {
  add(GravityLoad{si(acceleration)});
  return self();
}

template class LoadCalls<LoadCase>;
template class LoadCalls<LoadsOf>;

LoadCase& LoadsOf::load_case() const {
  const auto cases = cases_.lock();
  if (!cases) throw std::logic_error("corvex: the structure of load case '" + name_ + "' does not exist any more");
  const auto it = cases->index.find(name_);
  if (it == cases->index.end()) throw std::out_of_range("corvex: there is no load case '" + name_ + "'");
  return cases->all[it->second];
}

const std::vector<Load>& LoadsOf::loads() const {
  return load_case().loads();
}

}  // namespace corvex
