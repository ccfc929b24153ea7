#include "support/schema.hpp"

#include <catch2/catch.hpp>
#include <fstream>

// The validator's headers are not ours to mend.
#pragma GCC diagnostic push
#pragma GCC diagnostic ignored "-Wall"
#pragma GCC diagnostic ignored "-Wextra"
#pragma GCC diagnostic ignored "-Wpedantic"
#pragma GCC diagnostic ignored "-Wconversion"
#pragma GCC diagnostic ignored "-Wunused-parameter"
#include <valijson/adapters/nlohmann_json_adapter.hpp>
#include <valijson/schema.hpp>
#include <valijson/schema_parser.hpp>
#include <valijson/validator.hpp>
#pragma GCC diagnostic pop

namespace corvex::test {

struct Schema::Parsed {
  nlohmann::json json;
  valijson::Schema schema;
};

Schema::Schema(const std::string& file) : parsed_(std::make_unique<Parsed>()) {
  std::ifstream in(CORVEX_SOURCE "/share/corvex/" + file);
  REQUIRE(in);
  in >> parsed_->json;
  valijson::SchemaParser(valijson::SchemaParser::kDraft7)
      .populateSchema(valijson::adapters::NlohmannJsonAdapter(parsed_->json), parsed_->schema);
}

Schema::~Schema() = default;

std::string Schema::refusal(const nlohmann::json& document) const {
  valijson::Validator validator(valijson::Validator::kStrongTypes);
  valijson::ValidationResults results;
  if (validator.validate(parsed_->schema, valijson::adapters::NlohmannJsonAdapter(document), &results)) return {};
  std::string all = "refused";
  valijson::ValidationResults::Error e;
  while (results.popError(e))
    for (const std::string& c : e.context) all += "\n" + c + " " + e.description;
  return all;
}

const nlohmann::json& Schema::json() const {
  return parsed_->json;
}

void check_results(const std::string& printed) {
  if (printed.find("\"corvex-results\"") == std::string::npos &&
      printed.find("\"corvex-trace\"") == std::string::npos &&
      printed.find("\"corvex-findings\"") == std::string::npos &&
      printed.find("\"corvex-comparison\"") == std::string::npos &&
      printed.find("\"corvex-choice\"") == std::string::npos &&
      printed.find("\"corvex-sweep\"") == std::string::npos)
    return;
  static const Schema schema("results.schema.json");
  const std::string why = schema.refusal(nlohmann::json::parse(printed));
  INFO(why << "\n" << printed.substr(0, 2000));
  REQUIRE(why.empty());
}

}  // namespace corvex::test
