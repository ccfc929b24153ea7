#include "corvex/load_case.hpp"

namespace corvex {
namespace {

template <class Three>
Vector si(const Three& v) {
  return {v.x.si(), v.y.si(), v.z.si()};
}

}  // namespace

LoadCase& LoadCase::at(PointId point, const Force& force) {
  loads_.push_back(PointLoad{point, si(force), {}});
  return *this;
}

LoadCase& LoadCase::at(PointId point, const Moment& moment) {
  loads_.push_back(PointLoad{point, {}, si(moment)});
  return *this;
}

LoadCase& LoadCase::on(MemberId member, Length at, const Force& force, LoadAxes axes) {
  loads_.push_back(MemberLoad{member, at.si(), si(force), {}, axes});
  return *this;
}

LoadCase& LoadCase::on(MemberId member, Length at, const Moment& moment, LoadAxes axes) {
  loads_.push_back(MemberLoad{member, at.si(), {}, si(moment), axes});
  return *this;
}

LoadCase& LoadCase::line(MemberId member, const LineForce& load) {
  return line(member, load, load);
}

LoadCase& LoadCase::line(MemberId member, const LineForce& first, const LineForce& last) {
  return line(member, first, last, LineOptions{});
}

LoadCase& LoadCase::line(MemberId member, const LineForce& first, const LineForce& last, Length from, Length to) {
  return line(member, first, last, LineOptions{.from = from, .to = to});
}

LoadCase& LoadCase::line(MemberId member, const LineForce& first, const LineForce& last, const LineOptions& o) {
  const auto to = o.to ? std::optional(o.to->si()) : std::nullopt;
  loads_.push_back(LineLoad{member, o.from.value_or(Length{}).si(), to, si(first), si(last), o.axes, o.per});
  return *this;
}

LoadCase& LoadCase::spread(std::vector<MemberId> members, const Force& force, LoadAxes axes) {
  loads_.push_back(SpreadLoad{std::move(members), si(force), axes});
  return *this;
}

LoadCase& LoadCase::heat(MemberId member, Temperature change) {
  loads_.push_back(HeatLoad{member, HeatLoad::Across::nothing, change.si(), change.si()});
  return *this;
}

LoadCase& LoadCase::heat_across_y(MemberId member, Temperature plus, Temperature minus) {
  loads_.push_back(HeatLoad{member, HeatLoad::Across::y, plus.si(), minus.si()});
  return *this;
}

LoadCase& LoadCase::heat_across_z(MemberId member, Temperature plus, Temperature minus) {
  loads_.push_back(HeatLoad{member, HeatLoad::Across::z, plus.si(), minus.si()});
  return *this;
}

LoadCase& LoadCase::shorten(MemberId member, Length by) {
  loads_.push_back(ShortenLoad{member, by.si()});
  return *this;
}

LoadCase& LoadCase::settle(PointId point, const Settlement& s) {
  loads_.push_back(SettleLoad{point, si(s), {s.rx.si(), s.ry.si(), s.rz.si()}});
  return *this;
}

LoadCase& LoadCase::through(const Through& place) {
  if (!loads_.empty())
    std::visit(
        [&](auto& load) {
          if constexpr (requires { load.through; }) load.through = place;
        },
        loads_.back());
  return *this;
}

LoadCase& LoadCase::add(Load load) {
  loads_.push_back(std::move(load));
  return *this;
}

LoadCase& LoadCase::gravity() {
  loads_.push_back(GravityLoad{up_ * -gn.si()});
  return *this;
}

LoadCase& LoadCase::gravity(const Acceleration& acceleration) {
  loads_.push_back(GravityLoad{si(acceleration)});
  return *this;
}

}  // namespace corvex
