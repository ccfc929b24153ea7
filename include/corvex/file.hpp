// Corvex: model files, read and written. (Target corvex::files.)
//
// A model file describes one structure, its loads and the units of its numbers; docs/model-file.md describes the
// format. Reading builds a Structure through the same calls that a program would make, and finds many
// mistakes in one go, each with file, line, column and what was expected.
//
//     const auto model = corvex::read_model("trestle.yaml");
//     if (!model) for (const corvex::Problem& p : model.error()) fmt::print("{}\n", describe(p));
//     fmt::print("{} members\n", model->structure.members().size());   // 3 members
//
// Numbers are read and written by the standard's own conversions: to the last digit, whatever the locale. Results are
// written by export.hpp.
#pragma once

#include <map>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "corvex/choose.hpp"
#include "corvex/compare.hpp"
#include "corvex/evaluation.hpp"
#include "corvex/expected.hpp"
#include "corvex/findings.hpp"
#include "corvex/hand.hpp"
#include "corvex/limits.hpp"
#include "corvex/model_units.hpp"
#include "corvex/modes.hpp"
#include "corvex/solution.hpp"
#include "corvex/sweep.hpp"

#pragma GCC visibility push(default)

namespace corvex {

// Head of a report, as written; fields that are not given are empty.
struct DocumentHead {
  struct Revision {
    std::string revision{}, date{}, text{}, author{};
  };

  std::string project{}, number{}, client{};
  std::string author{}, checked{}, approved{};
  // Dates of these persons' signatures.
  std::string author_date{}, checked_date{}, approved_date{};
  std::string revision{}, date{};
  std::vector<Revision> revisions{};
};

// A file that a model was read from: its name without folders, and its bytes.
struct SourceFile {
  std::string name{};
  std::shared_ptr<const std::string> bytes{};
};

// Remarks of an entry of a load case: what it represents, and where its value comes from.
struct LoadRemark {
  std::string note{}, source{};
};

namespace file {
class Tree;
}

struct Model {
  Structure structure;
  ModelUnits units{};
  HandCalculation hand{};
  Limits limits{};
  std::vector<Acceptance> acceptances{};
  // Sections to choose from.
  std::vector<ChoiceGroup> choose{};
  // Further figures that comparisons show.
  std::vector<ShownFigure> show{};
  std::vector<Sweep> sweeps{};
  DocumentHead document{};
  // Assumptions of the calculation: `notes` of the file.
  std::vector<std::string> assumptions{};
  // Modes requested by `modes` in the file; empty if it has none.
  ModesOptions modes{};

  // Fills in the lines of problems that `solve` finds in this model.
  Problems located(Problems problems) const;

  std::string file{};
  // CSV tables that it was read from too.
  std::vector<std::string> table_files{};
  // The model file and its tables as they were read.
  std::vector<SourceFile> sources{};
  std::shared_ptr<const file::Tree> tree{};
  // For each load case the entries of the file that its loads came from.
  std::vector<std::vector<std::size_t>> load_entries{};
  // For each load case the remarks of each entry of the file.
  std::vector<std::vector<LoadRemark>> load_remarks{};
  // For each expectation the entry of the file that it came from.
  std::vector<std::size_t> hand_entries{};
  // The same for each limit.
  std::vector<std::size_t> limit_entries{};
  // Places of "point NAME" and "member NAME" in CSV tables.
  std::map<std::string, Place> table_places{};
  // Notes about the file itself.
  Problems notes{};
};

// How messages name the values of Overrides: by the options of a program, for example.
struct OverrideNames {
  std::string set = "set", show = "show", table_folders = "table_folders";
};

// Values that replace those of a model file.
struct Overrides {
  // New values of parameters that the file has: numbers or formulas, written as in the file.
  std::map<std::string, std::string> parameters{};
  // One of the file's `variants`, applied to it as a merge patch (RFC 7396); none if empty.
  std::string variant{};
  // Values by JSON Pointer (RFC 6901), written as in the file: {"/sections/leg", "SHS 80x80x4"}. Applied after the
  // variant, in order.
  std::vector<std::pair<std::string, std::string>> set{};
  // Figures to show in addition to those of the file's `show`, in the words of `expect`: "moment: rail, take: max".
  std::vector<std::string> show{};
  // CSV tables are read from the folder of the model, its subfolders, and from these folders.
  std::vector<std::string> table_folders{};
  OverrideNames names{};
};

// The limits, hand values and acceptances of a model; its notes.
EvaluationOptions evaluation_options(const Model& model);
// A model, evaluated (evaluation.hpp): problems and findings have their lines.
[[nodiscard]] Evaluation evaluate(const Model& model);
[[nodiscard]] Evaluation evaluate(const Model& model, Solution solution);
[[nodiscard]] Evaluation evaluate(const Model& model, Solution solution, const EvaluationOptions& options);

// From a file; "-" is standard input.
Expected<Model, Problems> read_model(const std::string& path, const Overrides& overrides = {});
// From text; `file` is its name in messages.
Expected<Model, Problems> read_model_text(std::string_view text, const std::string& file);

// A model file that was read once and is built as often as is wanted, each time with other parameters:
//
//     const auto document = corvex::read_document("trestle.yaml");
//     const auto longer = corvex::build(*document, {.parameters = {{"span", "3 m"}}});
//     fmt::print("{:.2f} kg\n", longer->structure.mass()->in(corvex::units::kg));   // 33.76 kg
//
// A document is constant and cheap to copy; several threads may build it at once.
class ModelDocument {
 public:
  const std::string& file() const& { return file_; }
  // Names and formulas, in the order of the file.
  std::vector<std::pair<std::string, std::string>> parameters() const;
  // Names, in the order of the file.
  std::vector<std::string> variants() const;
  // The keys of the file that a variant changes: "sections", "members"; empty for an unknown one.
  std::vector<std::string> changed_keys(std::string_view variant) const;
  // Paths of the CSV tables that the file or a variant of it names, whether they are there or not.
  std::vector<std::string> table_files() const;

 private:
  friend Expected<ModelDocument, Problems> read_document_text(std::string_view text, const std::string& file);
  friend Expected<std::string, Problems> changed_text(const ModelDocument& document, const Overrides& overrides);
  friend Expected<Model, Problems> build_changed(const ModelDocument& document, const Overrides& overrides,
                                                 const std::string& changed_by);
  friend Expected<ModelDocument, Problems> document_for_runs(const ModelDocument& document, const Overrides& overrides,
                                                             const Sweep& sweep);
  std::shared_ptr<const file::Tree> tree_;
  std::shared_ptr<const std::string> text_;
  std::string file_;
};
// From a file; "-" is standard input. Pipes and devices are read to their end unless only a regular file is wanted, as
// by what reads the file again later: then nothing is waited for, and any other file is refused.
enum class FileKind { any, regular };
Expected<ModelDocument, Problems> read_document(const std::string& path, FileKind kind = FileKind::any);
Expected<ModelDocument, Problems> read_document_text(std::string_view text, const std::string& file);
Expected<Model, Problems> build(const ModelDocument& document, const Overrides& overrides = {});

// The runs of a sweep: the model with each combination of values, and with its overrides. A name that begins with a
// slash is the JSON Pointer of a place in the file, any other one a parameter. Refused where the model without them is.
Expected<std::vector<SweepRun>, Problems> sweep(const ModelDocument& document, const Overrides& overrides,
                                                const Sweep& sweep, const SweepOptions& options = {});

// The model file with what is changed in it, as YAML that reads back to the same model; comments are not kept.
Expected<std::string, Problems> changed_text(const ModelDocument& document, const Overrides& overrides);

// A structure as a model file that reads back to the same results, to the last digit. Each thing is written by itself:
// families are there as their members. Refused is what a model file cannot say: a material with strengths by thickness
// of its own, a section of the library alone.
Expected<std::string, Problems> model_text(const Structure& structure);

// The models that `corvex new` begins with, by their kind; nothing for an unknown kind.
std::vector<std::string> starter_kinds();
std::optional<std::string> starter_model(std::string_view kind);

}  // namespace corvex

#pragma GCC visibility pop
