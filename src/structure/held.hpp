// The directions in which a support holds movement.
#pragma once

#include "corvex/acting.hpp"

namespace corvex {

// The part of a support displacement that no restraint and no spring follows.
Vector beside_hold(const PointSupport& support, const Vector& movement);

}  // namespace corvex
