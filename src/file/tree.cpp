#include "file/tree.hpp"

#include <fmt/format.h>
#include <yaml.h>

#include <algorithm>
#include <charconv>
#include <new>
#include <unordered_map>

#include "corvex/printable.hpp"
#include "file/file_text.hpp"

namespace corvex::file {

std::string_view kind_name(const Node& n) {
  if (n.is_map()) return "a map";
  if (n.is_list()) return "a list";
  return n.is_empty() ? "nothing" : "a text";
}

const Node* Tree::find_key(const Node& map, std::string_view key) const {
  if (!map.is_map()) return nullptr;
  for (std::size_t i = 0; i < entries(map); ++i)
    if (entry(map, i).key.text == key) return &entry(map, i).key;
  return nullptr;
}

const Node* Tree::find(const Node& map, std::string_view key) const {
  const Node* k = find_key(map, key);
  return k ? k + 1 : nullptr;
}

// Follows libyaml's events; open collections are kept on a stack, and their children are moved into place
// together when it closes.
class TreeBuilder {
 public:
  TreeBuilder(std::string_view text, const std::string& file)
      : text_(text), file_(file), tree_(std::make_shared<Tree>()) {
    if (!yaml_parser_initialize(&parser_)) throw std::bad_alloc();
    yaml_parser_set_encoding(&parser_, YAML_UTF8_ENCODING);
    yaml_parser_set_input_string(&parser_, reinterpret_cast<const unsigned char*>(text.data()), text.size());
  }
  ~TreeBuilder() { yaml_parser_delete(&parser_); }
  TreeBuilder(const TreeBuilder&) = delete;
  TreeBuilder& operator=(const TreeBuilder&) = delete;

  Expected<std::shared_ptr<const Tree>, Problems> run() {
    bool more = true;
    while (more && problems_.size() < 20 && !fatal_) {
      yaml_event_t event;
      if (!yaml_parser_parse(&parser_, &event)) {
        syntax();
        break;
      }
      more = take(event);
      yaml_event_delete(&event);
    }
    if (!problems_.empty()) return problems_;
    if (pending_.empty()) return Problems{at(0, 0, "the file is empty; a model was expected")};
    tree_->root_ = tree_->nodes_.size();
    tree_->nodes_.push_back(pending_.front());
    return std::shared_ptr<const Tree>(tree_);
  }

 private:
  struct Open {
    Node node;
    std::size_t begin;  // of its children in `pending_`
  };

  Problem at(std::size_t line, std::size_t column, std::string text) const {
    return problem_at({file_, static_cast<int>(line) + 1, static_cast<int>(column) + 1}, std::move(text));
  }
  bool refuse(const yaml_mark_t& mark, std::string text) {
    problems_.push_back(at(mark.line, mark.column, std::move(text)));
    fatal_ = true;
    return false;
  }

  void syntax() {
    if (parser_.error == YAML_MEMORY_ERROR) throw std::bad_alloc();
    const yaml_mark_t& m = parser_.problem_mark;
    const std::string what = parser_.problem ? parser_.problem : "it cannot be read";
    if (parser_.error == YAML_READER_ERROR) {
      refuse_bytes(parser_.problem_offset, what);
      return;
    }
    std::string text = "not valid YAML: " + what;
    // A name before a colon, which the parser looks for no farther than this.
    constexpr std::size_t longest_key = 1024;
    const std::string_view before = line_at(m.line).substr(0, m.column);
    const std::size_t begin = before.find_last_of("{[,") + 1;
    if (before.size() - begin > longest_key) text = fmt::format("a key is at most {} bytes long", longest_key);
    if (parser_.context && parser_.context_mark.line > 0)
      text += fmt::format(" {} that begins in line {}", parser_.context, parser_.context_mark.line + 1);
    if (what.find("'\\t'") != std::string::npos || what.find("cannot start any token") != std::string::npos)
      text += " (tabs cannot indent; texts that begin with % @ or ` need quotes)";
    problems_.push_back(at(m.line, m.column, std::move(text)));
  }

  std::string_view line_at(std::size_t line) const {
    std::string_view rest = text_;
    for (std::size_t i = 0; i < line && !rest.empty(); ++i) {
      const std::size_t end = rest.find('\n');
      rest.remove_prefix(end == std::string_view::npos ? rest.size() : end + 1);
    }
    return rest.substr(0, rest.find('\n'));
  }

  // The reader reports positions in bytes only and counts no lines ahead of the scanner.
  void refuse_bytes(std::size_t offset, const std::string& what) {
    const std::string_view before = text_.substr(0, offset);
    const std::size_t line = static_cast<std::size_t>(std::count(before.begin(), before.end(), '\n'));
    const std::string_view in_line = before.substr(before.rfind('\n') + 1);
    const auto column = std::count_if(in_line.begin(), in_line.end(), [](char c) { return (c & 0xC0) != 0x80; });
    problems_.push_back(at(line, static_cast<std::size_t>(column), "the file is not UTF-8 text: " + what));
  }

  bool take(const yaml_event_t& e) {
    switch (e.type) {
      case YAML_DOCUMENT_START_EVENT:
        if (documents_++ > 0) return refuse(e.start_mark, "a second document begins here; a model is one document");
        return true;
      case YAML_ALIAS_EVENT:
        return refuse(e.start_mark, "an alias (*name) was read; write the value out, or use a parameter");
      case YAML_SCALAR_EVENT: return scalar(e);
      case YAML_SEQUENCE_START_EVENT:
        return open(e, Node::Kind::list, e.data.sequence_start.anchor, e.data.sequence_start.tag);
      case YAML_MAPPING_START_EVENT:
        return open(e, Node::Kind::map, e.data.mapping_start.anchor, e.data.mapping_start.tag);
      case YAML_SEQUENCE_END_EVENT:
      case YAML_MAPPING_END_EVENT: return close();
      case YAML_NO_EVENT:
      case YAML_STREAM_END_EVENT: return false;
      default: return true;
    }
  }

  bool plain(const yaml_event_t& e, const yaml_char_t* anchor, const yaml_char_t* tag) {
    if (anchor) return refuse(e.start_mark, "an anchor (&name) was read; write the value out, or use a parameter");
    if (tag) return refuse(e.start_mark, "a tag (!name) was read; every value is a plain text, list or map");
    return true;
  }

  static Node node_at(const yaml_event_t& e, Node::Kind kind) {
    Node n;
    n.kind = kind;
    n.line = static_cast<std::uint32_t>(e.start_mark.line + 1);
    n.column = static_cast<std::uint32_t>(e.start_mark.column + 1);
    return n;
  }

  bool scalar(const yaml_event_t& e) {
    const auto& s = e.data.scalar;
    if (!plain(e, s.anchor, s.tag)) return false;
    if (s.length > Tree::scalar_limit) return refuse(e.start_mark, "this text is longer than 65,536 bytes");
    const std::string_view text{reinterpret_cast<const char*>(s.value), s.length};
    if (const std::string why = why_not_printable(text, false); !why.empty())
      return refuse(e.start_mark, "this text cannot be printed: " + why);
    Node n = node_at(e, Node::Kind::text);
    n.quoted = s.style != YAML_PLAIN_SCALAR_STYLE;
    n.text = keep(text);
    pending_.push_back(n);
    return true;
  }

  std::string_view keep(std::string_view text) {
    constexpr std::size_t block = 1 << 18;
    auto& blocks = tree_->blocks_;
    if (blocks.empty() || blocks.back().size() + text.size() > blocks.back().capacity()) {
      blocks.emplace_back();
      blocks.back().reserve(std::max(block, text.size()));
    }
    const std::size_t begin = blocks.back().size();
    blocks.back().append(text);
    return std::string_view(blocks.back()).substr(begin);
  }

  bool open(const yaml_event_t& e, Node::Kind kind, const yaml_char_t* anchor, const yaml_char_t* tag) {
    if (!plain(e, anchor, tag)) return false;
    if (open_.size() >= static_cast<std::size_t>(Tree::depth_limit))
      return refuse(e.start_mark, fmt::format("lists and maps are nested more than {} deep", Tree::depth_limit));
    open_.push_back({node_at(e, kind), pending_.size()});
    return true;
  }

  bool close() {
    Node n = open_.back().node;
    const std::size_t begin = open_.back().begin;
    open_.pop_back();
    n.first = static_cast<std::uint32_t>(tree_->nodes_.size());
    n.count = static_cast<std::uint32_t>(pending_.size() - begin);
    if (n.is_map()) check_keys({pending_.data() + begin, n.count});
    tree_->nodes_.insert(tree_->nodes_.end(), pending_.begin() + static_cast<std::ptrdiff_t>(begin), pending_.end());
    pending_.resize(begin);
    pending_.push_back(n);
    return true;
  }

  void check_keys(std::span<const Node> turns) {
    const auto clash = [&](const Node& key, const Node& before) {
      problems_.push_back(
          at(key.line - 1, key.column - 1,
             fmt::format("'{}' is given a second time here; the first is in line {}", key.text, before.line)));
    };
    for (std::size_t i = 0; i < turns.size(); i += 2)
      if (!turns[i].is_text())
        problems_.push_back(at(turns[i].line - 1, turns[i].column - 1,
                               turns[i].is_list() ? "a name was expected before the colon, but this is a list; several "
                                                    "several names are separated by commas, for example A, B: pinned"
                                                  : "a name was expected before the colon"));
    for (std::size_t i = 0; i < turns.size(); i += 2)
      if (turns[i].is_text() && turns[i].text.find_first_of("\n\r\t") != std::string_view::npos)
        problems_.push_back(at(turns[i].line - 1, turns[i].column - 1, "a name must be on one line, without tabs"));
    if (turns.size() <= 16) {
      for (std::size_t i = 2; i < turns.size(); i += 2)
        for (std::size_t j = 0; j < i; j += 2)
          if (turns[i].text == turns[j].text && turns[i].is_text()) {
            clash(turns[i], turns[j]);
            break;
          }
      return;
    }
    std::unordered_map<std::string_view, const Node*> seen;
    seen.reserve(turns.size() / 2);
    for (std::size_t i = 0; i < turns.size(); i += 2)
      if (const auto [it, fresh] = seen.emplace(turns[i].text, &turns[i]); !fresh) clash(turns[i], *it->second);
  }

  std::string_view text_;
  const std::string& file_;
  std::shared_ptr<Tree> tree_;
  yaml_parser_t parser_{};
  std::vector<Open> open_;
  std::vector<Node> pending_;
  Problems problems_;
  int documents_ = 0;
  bool fatal_ = false;
};

namespace {

// JSON writes a character beyond U+FFFF as two escapes, \ud83d\ude00, which YAML does not know: it becomes the
// character itself.
std::string with_pairs_joined(std::string_view text) {
  const auto hex = [&](std::size_t at) -> unsigned {
    unsigned value = 0;
    if (text.substr(at, 2) != "\\u" || at + 6 > text.size()) return 0;
    const auto [end, error] = std::from_chars(text.data() + at + 2, text.data() + at + 6, value, 16);
    return error == std::errc() && end == text.data() + at + 6 ? value : 0;
  };
  std::string out;
  out.reserve(text.size());
  for (std::size_t i = 0; i < text.size();) {
    const unsigned high = text[i] == '\\' ? hex(i) : 0;
    const unsigned low = high >= 0xD800 && high < 0xDC00 ? hex(i + 6) : 0;
    if (low >= 0xDC00 && low < 0xE000) {
      const char32_t c = 0x10000 + ((high - 0xD800) << 10) + (low - 0xDC00);
      for (const char32_t byte : {0xF0 | c >> 18, 0x80 | (c >> 12 & 0x3F), 0x80 | (c >> 6 & 0x3F), 0x80 | (c & 0x3F)})
        out += static_cast<char>(byte);
      i += 12;
      continue;
    }
    // Two characters of an escape stay together: \\u does not escape a letter.
    const std::size_t length = text[i] == '\\' && i + 1 < text.size() ? 2 : 1;
    out += text.substr(i, length);
    i += length;
  }
  return out;
}

}  // namespace

Expected<std::shared_ptr<const Tree>, Problems> Tree::parse(std::string_view text, const std::string& file) {
  // Some editors begin a UTF-8 file with a byte order mark.
  if (text.starts_with("\xEF\xBB\xBF")) text.remove_prefix(3);
  if (text.size() > largest_file) return Problems{problem_at({file, 1, 1}, "the file is larger than 256 MiB")};
  if (const std::size_t pair = text.find("\\ud"), upper = text.find("\\uD");
      std::min(pair, upper) != std::string_view::npos) {
    const std::string joined = with_pairs_joined(text);
    return TreeBuilder(joined, file).run();
  }
  return TreeBuilder(text, file).run();
}

}  // namespace corvex::file
