// The text of a file, never more than the limit.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "corvex/expected.hpp"
#include "corvex/problem.hpp"

namespace corvex::file {

// Largest file that is read, in bytes.
inline constexpr std::size_t largest_file = std::size_t{1} << 28;

// "-" is standard input if `may_be_stream`, and then pipes and devices are read too; else only regular files are. The
// size is checked before anything is read, and again while reading.
Expected<std::string, Problem> text_of_file(const std::string& path, bool may_be_stream);

// The text of a regular file in one of these folders or below it. Links are followed as long as they lead there. (A
// foreign model must not make the program read, and quote, any file of this machine.) An error either begins with the
// words that follow the path in a message, or has the path as its place.
Expected<std::string, Problem> text_of_file_below(const std::string& path, const std::vector<std::string>& folders,
                                                  const std::string& further);

// The path of a table that a model file names.
std::string table_path(const std::string& model_file, std::string_view table);

// Why this is not a text that Corvex reads, with line and column; an empty text where it is: UTF-8 without NUL.
Problem why_not_text(std::string_view text, const std::string& file);

}  // namespace corvex::file
