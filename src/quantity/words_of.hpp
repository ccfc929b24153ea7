// The words in a formula that may be names.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace corvex {

std::vector<std::string_view> words_of(std::string_view formula, const std::vector<std::string>& figures);

}  // namespace corvex
