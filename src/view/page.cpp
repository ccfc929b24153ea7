#include <fmt/format.h>
#include <glib.h>

#include "report/escape.hpp"
#include "view/assets.hpp"
#include "view/data.hpp"

namespace corvex::view {

std::string for_script(const Json& json) {
  const std::string text = json.dump(-1, ' ', false, Json::error_handler_t::replace);
  std::string out;
  out.reserve(text.size());
  // `<` occurs in strings only, where it may be escaped: nothing ends the element, nothing begins a comment.
  for (const char c : text) c == '<' ? (void)(out += "\\u003c") : (void)(out += c);
  return out;
}

// Only this program runs, and it asks nobody but the server that it came from.
std::string page_policy() {
  const std::string_view program = asset_program();
  GChecksum* sum = g_checksum_new(G_CHECKSUM_SHA256);
  g_checksum_update(sum, reinterpret_cast<const guchar*>(program.data()), static_cast<gssize>(program.size()));
  guint8 digest[32];
  gsize size = sizeof digest;
  g_checksum_get_digest(sum, digest, &size);
  g_checksum_free(sum);
  gchar* base = g_base64_encode(digest, size);
  const std::string text = fmt::format(
      "default-src 'none'; script-src 'sha256-{}'; style-src 'unsafe-inline'; connect-src 'self'; base-uri 'none'; "
      "form-action 'none'",
      base);
  g_free(base);
  return text;
}

std::string page_with(const std::string& title, const std::string& data) {
  std::string page = std::string(asset_page());
  const auto put = [&](std::string_view mark, std::string_view text) {
    const std::size_t at = page.find(mark);
    if (at != std::string::npos) page.replace(at, mark.size(), text);
  };
  put("{{policy}}", "<meta http-equiv=\"Content-Security-Policy\" content=\"" + page_policy() + "\"/>");
  put("{{style}}", asset_style());
  // Line ends are part of what the policy allows.
  put("\n{{program}}\n", asset_program());
  // Text of the model comes last: it is not searched for placeholders.
  put("{{data}}", data);
  put("{{title}}", reporting::escaped(title));
  return page;
}

}  // namespace corvex::view

namespace corvex {

Expected<std::string, Problem> view_page(const std::vector<Viewed>& viewed, int digits, std::size_t most_bytes) {
  if (viewed.empty()) return Problem{"there is nothing to view"};
  // Variants of one model, or several models.
  const std::string& title = viewed.front().evaluation.solution.structure().title();
  bool models = false;
  std::vector<std::string> variants;
  for (const Viewed& v : viewed) {
    if (!v.evaluation.solution.ok()) return v.evaluation.solution.problems().front();
    if (&v != &viewed.front()) variants.push_back(v.name);
    models |= v.evaluation.solution.structure().title() != title;
  }
  std::string data = "[";
  for (const Viewed& v : viewed) {
    view::Json model = view::model_data(v, variants, digits);
    if (models) model["first"] = title;
    data += (data.size() > 1 ? ",\n" : "") + std::string("{\"model\":") + view::for_script(model) + ",\"cases\":{";
    bool first = true;
    for (const std::size_t i : v.evaluation.solution.assessed()) {
      view::Json one = view::case_data(v, i, digits);
      one["stress"] = view::stress_data(v, i);
      data += fmt::format("{}\"{}\":", first ? "" : ",\n", i) + view::for_script(one);
      first = false;
      if (data.size() > most_bytes)
        return Problem{
            fmt::format("the page would be larger than {} MB: use `corvex view` without -o, "
                        "which loads data on request",
                        most_bytes / 1'000'000)};
    }
    data += "}}";
  }
  return view::page_with(viewed.front().evaluation.solution.structure().title(), data + "]");
}

}  // namespace corvex

extern "C" [[gnu::visibility("default")]] void corvex_view_page(const std::vector<corvex::Viewed>& viewed, int digits,
                                                                corvex::Expected<std::string, corvex::Problem>& page) {
  page = corvex::view_page(viewed, digits);
}
