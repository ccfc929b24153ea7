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

LoadCase& LoadCase::on(MemberId member, Length at, const Force& force) {
  loads_.push_back(MemberLoad{member, at.si(), si(force), {}});
  return *this;
}

LoadCase& LoadCase::on(MemberId member, Length at, const Moment& moment) {
  loads_.push_back(MemberLoad{member, at.si(), {}, si(moment)});
  return *this;
}

LoadCase& LoadCase::line(MemberId member, const LineForce& load) {
  return line(member, load, load);
}

LoadCase& LoadCase::line(MemberId member, const LineForce& first, const LineForce& last) {
  loads_.push_back(LineLoad{member, 0, std::nullopt, si(first), si(last)});
  return *this;
}

LoadCase& LoadCase::line(MemberId member, const LineForce& first, const LineForce& last, Length from, Length to) {
  loads_.push_back(LineLoad{member, from.si(), to.si(), si(first), si(last)});
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
