// Writes the manual page or the completion of the shell from the table of commands, when the program is built.
#include <cstdio>
#include <fstream>
#include <iterator>
#include <string>

#include "describe/described.hpp"

// describe manual|completion TEMPLATE FILE
int main(int argc, char** argv) {
  if (argc != 4) return 2;
  std::ifstream in(argv[2]);
  const std::string text(std::istreambuf_iterator<char>(in), {});
  const std::string made =
      std::string(argv[1]) == "manual" ? corvex::cli::manual_page(text) : corvex::cli::bash_completion(text);
  std::ofstream out(argv[3]);
  out << made;
  out.close();
  if (!in || !out) {
    std::fprintf(stderr, "describe: '%s' cannot be read, or '%s' cannot be written\n", argv[2], argv[3]);
    return 1;
  }
  return 0;
}
