// Points and members from CSV tables of the model.
#include <algorithm>
#include <filesystem>

#include "file/file_text.hpp"
#include "file/parts.hpp"

namespace corvex::file {
namespace {

class TableReader {
 public:
  TableReader(const Tree& tree, Errors& errors, const Overrides& overrides, TablesBeside& tables)
      : tree_(&tree), errors_(errors), overrides_(overrides), tables_(tables) {}
  void run(const Node& n);

 private:
  TablesBeside::Rows read_rows(const Node& n, std::string_view kind,
                               const std::vector<std::vector<std::string>>& columns);
  TablesBeside::Rows rows_of(const Table& t, const std::string& path,
                             const std::vector<std::vector<std::string>>& columns);

  const Tree* tree_;
  Errors& errors_;
  const Overrides& overrides_;
  TablesBeside& tables_;
};

void TableReader::run(const Node& n) {
  if (!errors_.is_map(n, "tables")) return;
  errors_.check_keys(n, "tables", {{"points"}, {"members"}});
  if (const Node* points = tree_->find(n, "points"))
    tables_.points = read_rows(*points, "points", {{"name", "x", "y", "z"}, {"name", "x", "y"}});
  if (const Node* members = tree_->find(n, "members"))
    tables_.members = read_rows(
        *members, "members",
        {{"name", "from", "to", "section", "material", "kind"}, {"name", "from", "to", "section", "material"}});
}

// Rows with their cells in the order of these columns; the table has one of these sets, in any order.
TablesBeside::Rows TableReader::read_rows(const Node& n, std::string_view kind,
                                          const std::vector<std::vector<std::string>>& columns) {
  tables_.named.insert(std::string(kind));
  if (!errors_.is_text(n, "the file of a table")) return {};
  const std::string path = table_path(errors_.file(), n.text);
  std::vector<std::string> folders{std::filesystem::path(errors_.file()).parent_path() / "."};
  folders.insert(folders.end(), overrides_.table_folders.begin(), overrides_.table_folders.end());
  const auto text = text_of_file_below(path, folders, overrides_.names.table_folders);
  if (!text) {
    const bool has_place = !text.error().place.file.empty();
    errors_.fail(
        n, fmt::format("'{}'{} {}", has_place ? path : std::string(n.text), has_place ? ":" : "", text.error().text));
    return {};
  }
  auto table = read_table(*text, path);
  if (!table) {
    for (const Problem& p : table.error()) errors_.add(p);
    return {};
  }
  tables_.files[std::string(kind)] = path;
  tables_.sources.push_back(
      {std::filesystem::path(path).filename().string(), std::make_shared<const std::string>(*text)});
  tables_.texts.push_back(std::move(table.value()));
  const Table& t = tables_.texts.back();

  return rows_of(t, path, columns);
}

// The cells of each row in the order of the set of columns that the first line names.
TablesBeside::Rows TableReader::rows_of(const Table& t, const std::string& path,
                                        const std::vector<std::vector<std::string>>& columns) {
  const auto node = [](const Cell& c) {
    Node cell;
    cell.line = c.line;
    cell.column = c.column;
    cell.text = c.text;
    return cell;
  };
  const auto told = [&](const Cell& at, std::string what) {
    errors_.add(problem_at({path, static_cast<int>(at.line), static_cast<int>(at.column)}, std::move(what)));
    return TablesBeside::Rows{};
  };
  std::vector<std::string> heads;
  for (const Cell& c : t.header) heads.push_back(c.text);
  const auto set = std::find_if(columns.begin(), columns.end(), [&](const auto& names) {
    return std::is_permutation(names.begin(), names.end(), heads.begin(), heads.end());
  });
  if (set == columns.end()) {
    std::vector<std::string> expected;
    for (auto it = columns.rbegin(); it != columns.rend(); ++it)
      expected.push_back(fmt::format("{}", fmt::join(*it, ",")));
    return told(t.header[0], fmt::format("the first line names the columns: {} was expected, but this is {}",
                                         fmt::join(expected, " or "), fmt::join(heads, ",")));
  }
  std::vector<std::size_t> where;
  for (const std::string& name : *set)
    where.push_back(static_cast<std::size_t>(std::find(heads.begin(), heads.end(), name) - heads.begin()));
  TablesBeside::Rows rows;
  for (const auto& row : t.rows) {
    if (row.size() != heads.size()) {
      told(row[0], fmt::format("this line has {} cells, the first line names {} columns", row.size(), heads.size()));
      continue;
    }
    std::vector<Node> cells;
    for (const std::size_t w : where) cells.push_back(node(row[w]));
    if (cells[0].text.empty())
      told(row[where[0]], "a name was expected");
    else
      rows.push_back(std::move(cells));
  }
  return rows;
}

}  // namespace

void read_tables(const Tree& tree, Errors& errors, const Node& n, const Overrides& overrides, TablesBeside& tables) {
  TableReader(tree, errors, overrides, tables).run(n);
}

}  // namespace corvex::file
