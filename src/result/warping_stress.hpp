// Whether the stress of restrained warping, which is not computed, could govern a member.
#pragma once

#include "corvex/structure.hpp"
#include "result/inner.hpp"

namespace corvex::result {

// Torsion T of a member that is with warping restrained at one end causes the bimoment T·d there, d = √(E Cw/(G J)) the
// length over which it dies away, and the normal stress T·d·ω/Cw (V. Z. Vlasov, Thin-walled Elastic Beams, ch. II).
bool warping_could_govern(const Structure& structure, const Member& member, const Inner& inner);

}  // namespace corvex::result
