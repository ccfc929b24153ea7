// Measures what docs/speed.md shows: the library beside bare solvers on the same matrix, in the same run.
#include <fmt/chrono.h>
#include <fmt/format.h>
#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>
#include <yaml.h>

#include <algorithm>
#include <corvex/file.hpp>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <stdexcept>
#include <thread>
#include <vector>

#include "analysis/equilibrium.hpp"
#include "analysis/reusable.hpp"
#include "analysis/system.hpp"
#include "child.hpp"
#include "corvex/picture.hpp"
#include "derivations.hpp"
#include "models.hpp"
#include "modes.hpp"
#include "sections.hpp"
#include "studies.hpp"

extern char** environ;

namespace {

using namespace bench;
using namespace corvex;
using namespace corvex::units;

struct Case {
  std::string name;
  std::function<Structure(int cases, Weight weight)> make;
};

std::string seconds(double s) {
  return s >= 1      ? fmt::format("{:.2f} s", s)
         : s >= 1e-3 ? fmt::format("{:.1f} ms", s * 1e3)
                     : fmt::format("{:.0f} µs", s * 1e6);
}

void keep_less(double& best, double value) {
  if (best == 0 || value < best) best = value;
}

template <class Work>
double timed(const Work& work) {
  const double start = now();
  work();
  return now() - start;
}

// The best of several runs.
template <class Work>
double best(int times, const Work& work) {
  double least = 0;
  for (int i = 0; i < times; ++i) keep_less(least, timed(work));
  return least;
}

solver::LowerMatrix matrix_of(const Structure& s) {
  const solver::Spans spans = solver::cut(s);
  solver::Dofs f = solver::dofs(s, spans);
  solver::LowerMatrix K = solver::assemble_all(spans, solver::elements(s, spans), f);
  (void)solver::scale_to_unit_diagonal(K);
  return K;
}

std::unique_ptr<Bare> same_solver(const solver::LowerMatrix& K) {
  switch (solver::suitable_method(K)) {
    case solver::Method::dense: return eigen_dense(K);
    case solver::Method::simplicial: return eigen_simplicial(K);
    case solver::Method::multifrontal: return mumps(K);
  }
  throw std::logic_error("no method");
}

const char* solver_name(const solver::LowerMatrix& K) {
  static const char* names[] = {"dense", "simplicial", "MUMPS"};
  return names[static_cast<int>(solver::suitable_method(K))];
}

int repeats(int dofs) {
  return dofs < 3000 ? 20 : dofs < 20000 ? 7 : dofs < 60000 ? 4 : 2;
}

// Everything that a full report asks of every member.
void recover(const Solution& solution) {
  for (std::size_t c = 0; c < solution.size(); ++c)
    for (std::size_t i = 0; i < solution.structure().members().size(); ++i) {
      const MemberResult m = solution[c][MemberId{i}];
      for (const Diagram& d : {m.axial(), m.shear_y(), m.shear_z(), m.torsion(), m.moment_y(), m.moment_z()})
        if (d.max().value.si < d.min().value.si) throw std::logic_error("a diagram is upside down");
      (void)m.von_mises();
    }
}

Eigen::MatrixXd right_sides(int n, int columns) {
  return Eigen::MatrixXd::Random(n, columns);
}

double bare_all(Bare& bare, int n) {
  Eigen::MatrixXd block = right_sides(n, 1);
  return run(bare, block).all();
}

// Stages of one solution: analysis, assembly, factorisation, back-substitution.
void stages(const Structure& s, Measured& m) {
  const double t0 = now();
  (void)s.validate();
  solver::System a;
  a.spans = solver::cut(s);
  a.dofs = solver::dofs(s, a.spans);
  a.elements = solver::elements(s, a.spans);
  solver::Pattern pattern(a.spans, a.dofs);
  const double t1 = now();
  solver::LowerMatrix K;
  pattern.assemble(a.spans, a.elements, a.dofs, K);
  const double t2 = now();
  solver::Factor factor(K);
  Eigen::MatrixXd block = right_sides(K.n, 1);
  factor.factorise(K, block);
  const double t3 = now();
  const Eigen::MatrixXd x = factor.solve(block);
  const double t4 = now();
  keep_less(m.seconds[0], t1 - t0);
  keep_less(m.seconds[1], t2 - t1);
  keep_less(m.seconds[2], t3 - t2);
  keep_less(m.seconds[3], t4 - t3);
}

void large_models() {
  const std::vector<Case> cases = {{"lattice 6³", [](int c, Weight w) { return lattice(6, c, w); }},
                                   {"lattice 12³", [](int c, Weight w) { return lattice(12, c, w); }},
                                   {"lattice 18³", [](int c, Weight w) { return lattice(18, c, w); }},
                                   {"lattice 26³", [](int c, Weight w) { return lattice(26, c, w); }},
                                   {"chain 190", [](int c, Weight w) { return chain(190, c, w); }},
                                   {"chain 1,900", [](int c, Weight w) { return chain(1900, c, w); }},
                                   {"chain 5,600", [](int c, Weight w) { return chain(5600, c, w); }},
                                   {"chain 18,500", [](int c, Weight w) { return chain(18500, c, w); }},
                                   {"flat frame 18²", [](int c, Weight w) { return flat_frame(18, 18, c, w); }},
                                   {"flat frame 57²", [](int c, Weight w) { return flat_frame(57, 57, c, w); }},
                                   {"flat frame 100²", [](int c, Weight w) { return flat_frame(100, 100, c, w); }},
                                   {"flat frame 182²", [](int c, Weight w) { return flat_frame(182, 182, c, w); }}};
  fmt::print("## Large models\n\n");
  fmt::print(
      "One load case. *Analysis* is freedoms, order and pattern; *factorise* holds the solver's own analysis and the first back-substitution with the check of "
      "the pivots; *solve* is the whole call, checks and refinement included. *Bare* is analyse, factorise and solve of the "
      "same matrix by the same solver, called as its manual advises, with its own ordering; CHOLMOD is its supernodal method. "
      "*Recovery* asks every member for all its diagrams' extremes and its von Mises stress. Best of several runs in "
      "turns; peaks are of a process that does nothing else.\n\n");
  fmt::print(
      "| model | members | freedoms | read | analysis | assembly | factorise | back-subst. | **solve** | recovery | bare "
      "| solve/bare | CHOLMOD | solve/CHOLMOD | peak | bare peak | ratio |\n");
  fmt::print("|---|--:|--:|--:|--:|--:|--:|--:|--:|--:|--:|--:|--:|--:|--:|--:|--:|\n");
  for (const Case& c : cases) {
    const Measured ours = in_child([&](Measured& m) {
      const std::string text = as_model_file(c.make(1, Weight::first_case));
      m.seconds[4] = best(3, [&] {
        if (!read_model_text(text, "bench").ok()) throw std::runtime_error("the model is wrong");
      });
    });
    const Measured times = in_child([&](Measured& m) {
      const Structure s = c.make(1, Weight::first_case);
      const solver::LowerMatrix K = matrix_of(s);
      m.extra = K.n;
      for (int i = 0; i < repeats(K.n); ++i) {
        keep_less(m.seconds[5], timed([&] {
                    if (!solve(s).ok()) throw std::runtime_error("refused");
                  }));
        keep_less(m.seconds[6], bare_all(*same_solver(K), K.n));
        keep_less(m.seconds[7], bare_all(*cholmod(K), K.n));
        if (i < 3) stages(s, m);
      }
      const Solution solution = solve(s);
      m.seconds[4] = timed([&] { recover(solution); });
    });
    const Measured memory = in_child([&](Measured&) {
      const Structure s = c.make(1, Weight::first_case);
      forget_peak();
      if (!solve(s).ok()) throw std::runtime_error("refused");
    });
    const Measured bare_memory = in_child([&](Measured&) {
      const solver::LowerMatrix K = matrix_of(c.make(1, Weight::first_case));
      forget_peak();
      bare_all(*same_solver(K), K.n);
    });
    const Structure s = c.make(1, Weight::first_case);
    fmt::print(
        "| {} | {} | {} | {} | {} | {} | {} | {} | **{}** | {} | {} {} | {:.2f} | {} | {:.2f} | {:.0f} MB | {:.0f} MB | {:.2f} |\n",
        c.name, s.members().size(), times.extra, seconds(ours.seconds[4]), seconds(times.seconds[0]),
        seconds(times.seconds[1]), seconds(times.seconds[2]), seconds(times.seconds[3]), seconds(times.seconds[5]),
        seconds(times.seconds[4]), solver_name(matrix_of(s)), seconds(times.seconds[6]),
        times.seconds[5] / times.seconds[6], seconds(times.seconds[7]), times.seconds[5] / times.seconds[7],
        memory.peak, bare_memory.peak, memory.peak / bare_memory.peak);
    std::fflush(stdout);
  }
}

void small_models() {
  fmt::print("\n## Small models\n\nThe whole of `solve` beside assembling, factorising and solving alone.\n\n");
  fmt::print(
      "| model | members | freedoms | solve | bare assemble, factorise, solve | ratio |\n|---|--:|--:|--:|--:|--:|\n");
  for (const auto& model : {std::pair<const char*, Structure>{"lattice 3³", lattice(3, 1)},
                            {"flat frame 5 × 5", flat_frame(5, 5, 1)},
                            {"pipe on brackets", chain(51, 1)}}) {
    const Structure& s = model.second;
    const solver::Spans spans = solver::cut(s);
    solver::Dofs f = solver::dofs(s, spans);
    int n = 0;
    const auto bare = [&] {
      const solver::LowerMatrix K = solver::assemble_all(spans, solver::elements(s, spans), f);
      n = K.n;
      bare_all(*same_solver(K), K.n);
    };
    double ours = 0, theirs = 0;
    for (int i = 0; i < 400; ++i) {
      keep_less(ours, timed([&] { (void)solve(s); }));
      keep_less(theirs, timed(bare));
    }
    fmt::print("| {} | {} | {} | {} | {} | {:.2f} |\n", model.first, s.members().size(), n, seconds(ours),
               seconds(theirs), ours / theirs);
  }
}

double spawned(const std::vector<std::string>& command) {
  std::vector<char*> arguments;
  for (const std::string& a : command) arguments.push_back(const_cast<char*>(a.c_str()));
  arguments.push_back(nullptr);
  const double start = now();
  pid_t child = 0;
  if (posix_spawn(&child, arguments[0], nullptr, nullptr, arguments.data(), environ) != 0)
    throw std::runtime_error("spawn");
  int status = 0;
  waitpid(child, &status, 0);
  if (status != 0) throw std::runtime_error(command[0] + " failed");
  return now() - start;
}

void program() {
  namespace fs = std::filesystem;
  const fs::path folder = fs::temp_directory_path() / fmt::format("corvex-bench-{}", getpid());
  fs::create_directories(folder);
  const std::string model = folder / "model.yaml", out = folder / "out.txt";
  std::ofstream(model) << as_model_file(lattice(3, 1));
  std::vector<double> ours, empty;
  for (int i = 0; i < 150; ++i) {
    ours.push_back(spawned({CORVEX_PROGRAM, "solve", model, "-o", out}));
    empty.push_back(spawned({CORVEX_EMPTY}));
  }
  fs::remove_all(folder);
  const auto median = [](std::vector<double>& v) {
    std::nth_element(v.begin(), v.begin() + static_cast<std::ptrdiff_t>(v.size() / 2), v.end());
    return v[v.size() / 2];
  };
  fmt::print(
      "\n## The program\n\n`corvex solve` on a model of 54 members, text tables to a file, beside an empty program that "
      "links the same libraries; median of 150 runs in turns.\n\n");
  fmt::print("| corvex solve | empty program | difference |\n|--:|--:|--:|\n");
  fmt::print("| {} | {} | {} |\n", seconds(median(ours)), seconds(median(empty)),
             seconds(median(ours) - median(empty)));
}

// A picture of each kind of a structure of some 2,000 members.
void pictures() {
  const Structure frame = flat_frame(31, 31, 1);
  const Solution solution = solve(frame);
  fmt::print("\n## Pictures\n\nOf a flat frame of {} members, 1280 by 800 pixels, without solving.\n\n",
             frame.members().size());
  fmt::print("| picture | SVG | PNG |\n|---|--:|--:|\n");
  for (const auto& [name, of] : {std::pair("structure", PictureOf::structure),
                                 {"deformed", PictureOf::deformed},
                                 {"axial", PictureOf::axial},
                                 {"shear", PictureOf::shear},
                                 {"moment", PictureOf::moment},
                                 {"stress", PictureOf::stress},
                                 {"use", PictureOf::utilisation}}) {
    double svg = 0, png = 0;
    for (int i = 0; i < 3; ++i) {
      keep_less(svg, timed([&, of = of] { (void)draw(solution, {.of = of}, ImageFormat::svg); }));
      keep_less(png, timed([&, of = of] { (void)draw(solution, {.of = of}, ImageFormat::png); }));
    }
    fmt::print("| {} | {} | {} |\n", name, seconds(svg), seconds(png));
  }
}

const std::vector<Case> medium = {{"lattice 12³", [](int c, Weight w) { return lattice(12, c, w); }},
                                  {"lattice 18³", [](int c, Weight w) { return lattice(18, c, w); }},
                                  {"chain 5,600", [](int c, Weight w) { return chain(5600, c, w); }},
                                  {"flat frame 100²", [](int c, Weight w) { return flat_frame(100, 100, c, w); }}};

void load_cases() {
  constexpr int many = 20;
  fmt::print(
      "\n## Load cases\n\nWhat each case beyond the first costs, beside its share of one block back-substitution by the bare "
      "solver.\n\n");
  fmt::print(
      "| model | 1 case | {} cases | each further case | share of a block | ratio |\n|---|--:|--:|--:|--:|--:|\n",
      many);
  std::vector<Case> both;
  for (const Case& c : medium) {
    both.push_back(c);
    both.push_back(
        {c.name + ", weight in every case", [&c](int cases, Weight) { return c.make(cases, Weight::every_case); }});
  }
  for (const Case& c : both) {
    const Measured m = in_child([&](Measured& r) {
      const Structure one = c.make(1, Weight::first_case), all = c.make(many, Weight::first_case);
      const solver::LowerMatrix K = matrix_of(one);
      const auto bare = same_solver(K);
      bare->analyse();
      bare->factorise();
      for (int i = 0; i < repeats(K.n); ++i) {
        keep_less(r.seconds[0], timed([&] { (void)solve(one); }));
        keep_less(r.seconds[1], timed([&] { (void)solve(all); }));
        Eigen::MatrixXd block = right_sides(K.n, many);
        keep_less(r.seconds[2], timed([&] { bare->solve(block); }) / many);
      }
    });
    const double each = (m.seconds[1] - m.seconds[0]) / (many - 1);
    fmt::print("| {} | {} | {} | {} | {} | {:.2f} |\n", c.name, seconds(m.seconds[0]), seconds(m.seconds[1]),
               seconds(each), seconds(m.seconds[2]), each / m.seconds[2]);
    std::fflush(stdout);
  }
}

// The same structure with thicker walls: nothing of the topology changes.
Structure thicker(const Structure& s) {
  Structure t = s.is_plane() ? Structure::plane(s.title()) : Structure::space(s.title());
  for (const Point& p : s.points())
    t.point(p.name, Length::si(p.position.x), Length::si(p.position.y), Length::si(p.position.z));
  const SectionId section = t.section("tube", RectangularTube{.height = 80 * mm, .width = 40 * mm, .wall = 5 * mm});
  for (const Member& m : s.members()) t.member(m.name, m.through, {.section = section, .material = material("S235")});
  for (const PointSupport& p : s.supports()) t.support(p.at, Support::fixed());
  t.load_case("load").gravity();
  return t;
}

void value_changes() {
  fmt::print(
      "\n## Only values change\n\n`Solver::solve` on the same structure with thicker walls, beside refactorising and solving "
      "alone.\n\n");
  fmt::print(
      "| model | first solution | changed values | bare refactorise and solve | ratio |\n|---|--:|--:|--:|--:|\n");
  std::vector<Case> all = medium;
  all.insert(all.begin(), {"lattice 3³", [](int c, Weight w) { return lattice(3, c, w); }});
  for (const Case& c : all) {
    const Measured m = in_child([&](Measured& r) {
      const Structure one = c.make(1, Weight::first_case), other = thicker(one);
      const solver::LowerMatrix K = matrix_of(other);
      const auto bare = same_solver(K);
      bare->analyse();
      Solver kept;
      for (int i = 0; i < std::max(3, repeats(K.n)); ++i) {
        Solver fresh;
        keep_less(r.seconds[0], timed([&] { (void)fresh.solve(one); }));
        (void)kept.solve(one);
        keep_less(r.seconds[1], timed([&] { (void)kept.solve(other); }));
        Eigen::MatrixXd block = right_sides(K.n, 1);
        keep_less(r.seconds[2], timed([&] {
                    bare->factorise();
                    bare->solve(block);
                  }));
      }
    });
    fmt::print("| {} | {} | {} | {} | {:.2f} |\n", c.name, seconds(m.seconds[0]), seconds(m.seconds[1]),
               seconds(m.seconds[2]), m.seconds[1] / m.seconds[2]);
    std::fflush(stdout);
  }
}

// All events of a text, and nothing done with them.
std::size_t bare_events(const std::string& text) {
  yaml_parser_t parser;
  yaml_parser_initialize(&parser);
  yaml_parser_set_encoding(&parser, YAML_UTF8_ENCODING);
  yaml_parser_set_input_string(&parser, reinterpret_cast<const unsigned char*>(text.data()), text.size());
  std::size_t count = 0;
  for (bool more = true; more; ++count) {
    yaml_event_t event;
    if (!yaml_parser_parse(&parser, &event)) throw std::runtime_error("not YAML");
    more = event.type != YAML_STREAM_END_EVENT;
    yaml_event_delete(&event);
  }
  yaml_parser_delete(&parser);
  return count;
}

void reading() {
  fmt::print(
      "\n## Reading\n\nA model file beside the bare events of libyaml on the same text, and how long it takes to inspect what was read.\n\n");
  fmt::print("| members | text | events | read | bare events | ratio | inspect |\n|--:|--:|--:|--:|--:|--:|--:|\n");
  for (const int n : {11, 33}) {
    const Structure s = lattice(n, 1);
    const std::string text = as_model_file(s);
    double ours = 0, bare = 0, inspected = 0;
    std::size_t events = 0;
    for (int i = 0; i < 5; ++i) {
      keep_less(ours, timed([&] { (void)read_model_text(text, "bench"); }));
      keep_less(inspected, timed([&] { (void)inspect(s); }));
      keep_less(bare, timed([&] { events = bare_events(text); }));
    }
    fmt::print("| {} | {:.1f} MB | {} | {} | {} | {:.2f} | {} |\n", s.members().size(),
               static_cast<double>(text.size()) / 1e6, events, seconds(ours), seconds(bare), ours / bare,
               seconds(inspected));
  }
}

std::string processor() {
  std::ifstream in("/proc/cpuinfo");
  for (std::string line; std::getline(in, line);)
    if (line.rfind("model name", 0) == 0) return line.substr(line.find(':') + 2);
  return "unknown processor";
}

}  // namespace

int main(int argc, char** argv) {
  const std::vector<std::pair<const char*, void (*)()>> parts = {
      {"sections", sections},    {"large", large_models},
      {"small", small_models},   {"program", program},
      {"pictures", pictures},    {"cases", load_cases},
      {"values", value_changes}, {"studies", bench::studies},
      {"reading", reading},      {"derivations", bench::derivations},
      {"modes", bench::modes}};
  const double memory = static_cast<double>(sysconf(_SC_PHYS_PAGES)) * static_cast<double>(sysconf(_SC_PAGESIZE));
  fmt::print("Measured on {:%Y-%m-%d}: {}, {} threads of it, one used; {:.0f} GB of memory; BLAS with one thread.\n\n",
             fmt::localtime(std::time(nullptr)), processor(), std::thread::hardware_concurrency(), memory / 1e9);
  for (const auto& [name, part] : parts)
    if (argc < 2 || std::any_of(argv + 1, argv + argc, [&, n = name](const char* a) { return std::strcmp(a, n) == 0; }))
      part();
}
