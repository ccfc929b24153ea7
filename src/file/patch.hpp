// Changes of a model file's tree: merge patches (RFC 7396), and values set by JSON Pointer (RFC 6901).
#pragma once

#include <map>

#include "corvex/file.hpp"
#include "file/tree.hpp"

namespace corvex::file {

// A tree that can be changed. Nodes keep the places that they were read from; texts belong to the trees they came from.
struct Draft {
  Node head;
  std::vector<Draft> children;  // keys and values of a map take turns

  Draft* value(std::string_view key);
  // Removes the entry of a map, where there is one.
  void erase(std::string_view key);
};
Draft draft_of(const Tree& tree, const Node& node);

// Entries of the patch replace those of the target, maps are merged, `null` removes.
void merge(Draft& target, const Draft& patch);

// Puts a value where the pointer leads: instead of what is there, as a new entry of a map, or at the end of a list
// where the last part is "-". `key` is the last part of the pointer as a node. The reason, with the nearest key, where
// it leads nowhere.
std::string set(Draft& root, std::string_view pointer, const Draft& key, const Draft& value);
// The parts of a pointer, its escapes resolved.
std::vector<std::string> parts_of(std::string_view pointer);

}  // namespace corvex::file

namespace corvex {

// As build(); messages name what was changed, led by these words.
Expected<Model, Problems> build_changed(const ModelDocument& document, const Overrides& overrides,
                                        const std::string& changed_by);
// The document with its variant and values, without what the runs of a sweep do not read: lists of what is varied, hand
// calculations, other variants. Building it takes a time that does not depend on the number of runs.
Expected<ModelDocument, Problems> document_for_runs(const ModelDocument& document, const Overrides& overrides,
                                                    const Sweep& sweep);

}  // namespace corvex
