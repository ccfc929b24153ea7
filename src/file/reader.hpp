// Reads the tree of a model file into a Structure.
#pragma once

#include "file/parts.hpp"

namespace corvex::file {

class Reader {
 public:
  Reader(std::shared_ptr<const Tree> tree, std::string file, Overrides overrides = {});
  // The model, or everything that is wrong with it. To be called once.
  Expected<Model, Problems> run();

 private:
  void read_head();
  void check_variants(const Node& n);
  void read_structure();
  void begin_structure(const Node* points);
  void check_what_was_read();

  std::shared_ptr<const Tree> tree_;
  Overrides overrides_;
  Errors errors_;
  Parameters parameters_;
  WantedUnits units_;
  Model model_;
  Quantities quantities_;
  NameTable names_;
  Directions directions_;
  Context context_;
  TablesBeside tables_;
};

}  // namespace corvex::file
