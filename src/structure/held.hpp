// The directions in which a support holds movement.
#pragma once

#include "corvex/acting.hpp"

namespace corvex {

// What is left of a movement of the support where neither a hold nor a spring goes with it.
Vector beside_hold(const PointSupport& support, const Vector& movement);

}  // namespace corvex
