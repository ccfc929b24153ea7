// Words that engineers type, and the words of the model file for them.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace corvex::file {

// The words of `known` that this word is a synonym of; empty if none.
std::vector<std::string> meant_by(std::string_view word, const std::vector<std::string>& known);

// "; did you mean 'wall'?", of a synonym or else of the nearest word; empty where there is neither.
std::string meaning(std::string_view word, const std::vector<std::string>& known);

}  // namespace corvex::file
