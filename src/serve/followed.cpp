#include "serve/followed.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <condition_variable>
#include <list>
#include <mutex>
#include <optional>
#include <system_error>
#include <thread>
#include <utility>
#include <vector>

#include "corvex/stop.hpp"
#include "serve/stamp.hpp"
#include "view/data.hpp"

namespace corvex::serve {
namespace {

using namespace std::chrono_literals;

}  // namespace

class Followed::Shared : public std::enable_shared_from_this<Followed::Shared> {
  // The outcome of reading the model or of solving a variant.
  struct Found {
    std::shared_ptr<Shown> shown{};
    Problems problems{};
  };

 public:
  Shared(const ViewServer& options, std::function<void()> changed) : o_(options), changed_(std::move(changed)) {}

  void start() {
    const std::lock_guard lock(mutex_);
    begin([self = shared_from_this()] { self->watch(); });
    read_again();
  }

  void end() {
    std::unique_lock lock(mutex_);
    ended_ = true;
    reading_stop_.request_stop();
    model_stop_.request_stop();
    waiting_.clear();
    ended_now_.notify_all();
    constexpr auto patience = 300ms;
    ended_now_.wait_for(lock, patience, [&] { return threads_ == 0; });
  }

  int version() const {
    const std::lock_guard lock(mutex_);
    return version_;
  }
  std::string title() const {
    const std::lock_guard lock(mutex_);
    return good_ ? good_->viewed.evaluation.solution.structure().title() : o_.path;
  }

  void ask(const std::string& variant, std::function<void(Answered)> then) {
    std::unique_lock lock(mutex_);
    if (ended_) return;
    Answered a{.version = version_, .problems = problems_};
    if (!good_ || variant == o_.overrides.variant) {
      a.shown = good_;
    } else if (const auto it = find(variant); it != variants_.end()) {
      variants_.splice(variants_.begin(), variants_, it);
      a.shown = it->second.shown, a.refused = it->second.problems;
    } else {
      if (is_under_way(variant) || begin_variant(variant)) {
        waiting_.emplace_back(variant, std::move(then));
        return;
      }
      a.refused = {Problem{"too many variants are being solved at once: select it again in a moment"}};
    }
    lock.unlock();
    then(std::move(a));
  }

 private:
  // -- threads --------------------------------------------------------------------------------------------------------
  // With the lock. The work runs on a thread that nobody waits for; false where there can be no more threads.
  bool begin(std::function<void()> work) {
    try {
      ++threads_;
      std::thread([self = shared_from_this(), work = std::move(work)]() mutable {
        try {
          work();
        } catch (const std::exception&) {
          // No memory is left for what was found: it is lost, and the next change is followed again.
        }
        work = nullptr;
        const std::lock_guard lock(self->mutex_);
        --self->threads_;
        self->ended_now_.notify_all();
      }).detach();
      return true;
    } catch (const std::system_error&) {
      --threads_;
      return false;
    }
  }

  // Runs work on a model; exceptions become problems.
  Found found(std::stop_token stop, const std::function<Found()>& work) const {
    const StopScope scope(std::move(stop));
    try {
      return work();
    } catch (const Stopped&) {
      return {};
    } catch (const std::bad_alloc&) {
      return {.problems = {Problem{"there is not enough memory for this model"}}};
    } catch (const std::exception& e) {
      return {.problems = {Problem{std::string("a fault of the program, not of the model: ") + e.what()}}};
    }
  }

  // -- following ------------------------------------------------------------------------------------------------------
  void watch() {
    std::unique_lock lock(mutex_);
    for (;;) {
      constexpr auto often = 20ms;
      ended_now_.wait_for(lock, often, [&] { return ended_; });
      if (ended_) return;
      // Without the lock: a disk of another machine may take its time.
      std::vector<WatchedFile> files = std::move(files_);
      files_.clear();
      const int list = file_list_;
      lock.unlock();
      const auto changed = std::count_if(files.begin(), files.end(), [](WatchedFile& f) { return f.has_changed(); });
      lock.lock();
      if (list == file_list_) {
        files_ = std::move(files);
        if (changed > 0) read_again();
      }
      if (retry_) read_again();
    }
  }

  // With the lock. A reading of the file as it was is stopped.
  void read_again() {
    constexpr int most_threads = 6;  // of those that do not stop at once
    reading_stop_.request_stop();
    reading_stop_ = std::stop_source();
    ++round_;
    files_.clear(), ++file_list_;
    const auto read = [self = shared_from_this(), round = round_, stop = reading_stop_.get_token()] {
      self->read(round, stop);
    };
    retry_ = threads_ > most_threads || !begin(read);
  }

  // Made before the files are read, so that no change is missed.
  void watch_files(int round) {
    std::vector<std::string> tables;
    {
      const std::lock_guard lock(mutex_);
      if (round != round_) return;
      tables = tables_;
    }
    std::vector<WatchedFile> files{WatchedFile(o_.path)};
    for (const std::string& table : tables) files.emplace_back(table);
    const std::lock_guard lock(mutex_);
    if (round != round_) return;
    files_ = std::move(files), ++file_list_;
  }

  void read(int round, const std::stop_token& stop) {
    std::optional<ModelDocument> document;
    const Found f = found(stop, [&]() -> Found {
      watch_files(round);
      auto read = read_document(o_.path, FileKind::regular);
      // Its tables are still those that it had.
      if (!read) return {.problems = read.error()};
      document = std::move(read.value());
      {
        const std::lock_guard lock(mutex_);
        if (round == round_) tables_ = document->table_files();
      }
      watch_files(round);
      return solved(*document, o_.overrides);
    });
    std::unique_lock lock(mutex_);
    if (round != round_ || ended_) return;
    problems_ = f.problems;
    decltype(waiting_) again;
    if (f.shown) {
      // Nobody looks at the model before any more.
      model_stop_.request_stop();
      model_stop_ = std::stop_source();
      f.shown->stop = model_stop_.get_token();
      good_ = f.shown, document_ = document;
      variants_.clear();
      // Those who wait for a variant of it get that of this one.
      std::swap(again, waiting_);
      under_way_.clear();
      ++model_;
    }
    ++version_;
    lock.unlock();
    changed_();
    for (auto& [variant, then] : again) ask(variant, std::move(then));
    if (o_.read) o_.read(f.problems);
  }

  Found solved(const ModelDocument& document, const Overrides& overrides) const {
    auto model = build(document, overrides);
    if (!model) return {.problems = model.error()};
    if (!o_.units.empty()) {
      const auto units = units_for_print(o_.units, model->units);
      if (!units) return {.problems = {Problem{units.error()}}};
      model.value().units = *units;
    }
    Evaluation evaluation = evaluate(*model);
    if (const Solution& s = evaluation.solution; !s.ok())
      return {.problems = model->located(with_remedies(model->structure, s.problems()))};
    auto shown =
        std::make_shared<Shown>(Shown{.viewed = {overrides.variant, std::move(model.value()), std::move(evaluation)}});
    shown->model = view::model_data(shown->viewed, document.variants(), o_.digits)
                       .dump(-1, ' ', false, view::Json::error_handler_t::replace);
    return {.shown = std::move(shown)};
  }

  // -- variants -------------------------------------------------------------------------------------------------------
  using Variants = std::list<std::pair<std::string, Found>>;  // the last asked for first
  Variants::iterator find(const std::string& variant) {
    return std::find_if(variants_.begin(), variants_.end(), [&](const auto& v) { return v.first == variant; });
  }
  bool is_under_way(const std::string& variant) const {
    return std::find(under_way_.begin(), under_way_.end(), variant) != under_way_.end();
  }

  // With the lock. False where too much is under way already.
  bool begin_variant(const std::string& variant) {
    constexpr int most_threads = 8;
    const auto work = [self = shared_from_this(), variant, model = model_, stop = model_stop_.get_token(),
                       document = *document_] {
      Overrides with = self->o_.overrides;
      with.variant = variant;
      self->finish_variant(model, variant, self->found(stop, [&] { return self->solved(document, with); }));
    };
    if (threads_ > most_threads || !begin(work)) return false;
    under_way_.push_back(variant);
    return true;
  }

  void finish_variant(int model, const std::string& variant, Found f) {
    std::unique_lock lock(mutex_);
    if (model != model_ || ended_) return;
    std::erase(under_way_, variant);
    if (f.shown) f.shown->stop = model_stop_.get_token();
    const Answered a{version_, problems_, f.shown, f.problems};
    constexpr std::size_t most_kept = 6;
    variants_.emplace_front(variant, std::move(f));
    if (variants_.size() > most_kept) variants_.pop_back();
    const auto told = take_waiting(variant);
    lock.unlock();
    for (const auto& then : told) then(a);
  }

  std::vector<std::function<void(Answered)>> take_waiting(const std::string& variant) {
    std::vector<std::function<void(Answered)>> those;
    for (auto& [name, then] : waiting_)
      if (name == variant) those.push_back(std::move(then));
    std::erase_if(waiting_, [&](const auto& w) { return w.first == variant; });
    return those;
  }

  const ViewServer o_;
  const std::function<void()> changed_;
  mutable std::mutex mutex_;
  std::condition_variable ended_now_;
  bool ended_ = false, retry_ = false;
  int threads_ = 0, version_ = 0;
  int round_ = 0;      // of readings that were begun
  int model_ = 0;      // of models that could be solved
  int file_list_ = 0;  // of lists of watched files
  std::stop_source reading_stop_, model_stop_;
  std::vector<WatchedFile> files_;
  std::vector<std::string> tables_;  // of the last file that could be read
  Problems problems_;
  std::shared_ptr<const Shown> good_;
  std::optional<ModelDocument> document_;
  Variants variants_;
  std::vector<std::string> under_way_;
  std::vector<std::pair<std::string, std::function<void(Answered)>>> waiting_;
};

Followed::Followed(const ViewServer& options, std::function<void()> changed)
    : shared_(std::make_shared<Shared>(options, std::move(changed))) {
  shared_->start();
}
Followed::~Followed() {
  shared_->end();
}
int Followed::version() const {
  return shared_->version();
}
std::string Followed::title() const {
  return shared_->title();
}
void Followed::ask(const std::string& variant, std::function<void(Answered)> then) {
  shared_->ask(variant, std::move(then));
}

}  // namespace corvex::serve
