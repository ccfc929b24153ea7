// The chapters of a derivation.
#pragma once

#include "hand/free_bodies.hpp"

namespace corvex::hand {

// Joints, members, what they are made of, loads: every number that later lines start from.
DerivationChapter given_chapter(const ForceMethod& method);
DerivationChapter count_chapter(const ForceMethod& method, std::vector<std::string>& redundants);
// Of a determinate structure its forces; else the primary structure under the loads.
DerivationChapter forces_chapter(const ForceMethod& method);
// Under each redundant alone, the flexibility coefficients, their equations, the sum.
std::vector<DerivationChapter> force_method_chapters(const ForceMethod& method);
// One-way members: what they do, and why it is right.
DerivationChapter one_way_chapter(const ForceMethod& method);
DerivationChapter members_chapter(const ForceMethod& method, const std::vector<MemberId>& members);
// Bars of trusses with their forces; none where there are no bars.
std::optional<DerivationTable> bars_table(const ForceMethod& method);
// The forces at each joint once more: their sum is nothing.
DerivationChapter joints_chapter(const Ledger& ledger);
// Displacements of these points; of the place that moves most if there are none.
std::pair<DerivationChapter, std::vector<DerivedDisplacement>> displacement_chapter(const ForceMethod& method,
                                                                                    const std::vector<PointId>& points);
// At the worst place of these members, or of all.
std::pair<DerivationChapter, std::optional<DerivedStress>> stress_chapter(const ForceMethod& method,
                                                                          const std::vector<MemberId>& members);

// "X1 = horizontal reaction at E"
std::string redundant_name(std::size_t i);
std::string in_words(const ForceMethod& method, const Unknown& unknown);
// Dimension of its value: a force or a moment.
Dimension dimension_of(const Skeleton& skeleton, const Unknown& unknown);
// The entry of the ledger that an unknown is.
std::size_t key_of(const Ledger& ledger, const Unknown& unknown);

}  // namespace corvex::hand
