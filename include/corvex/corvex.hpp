// Corvex: everything of the core in one include. See README.md for a first example, docs/ for the theory.
#pragma once

#include "corvex/catalogue.hpp"
#include "corvex/diagram.hpp"
#include "corvex/envelope.hpp"
#include "corvex/formula.hpp"
#include "corvex/hand.hpp"
#include "corvex/limits.hpp"
#include "corvex/load_case.hpp"
#include "corvex/material.hpp"
#include "corvex/placement.hpp"
#include "corvex/problem.hpp"
#include "corvex/quantity.hpp"
#include "corvex/section.hpp"
#include "corvex/solution.hpp"
#include "corvex/structure.hpp"
#include "corvex/trace.hpp"
