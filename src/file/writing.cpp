#include "corvex/writing.hpp"

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>

#include <atomic>
#include <cerrno>
#include <climits>
#include <csignal>
#include <ctime>
#include <system_error>
#include <utility>

#include "file/descriptor.hpp"

namespace corvex {
namespace {

using file::Descriptor;

std::string reason(int error) {
  switch (error) {
    case ENOSPC:
    case EDQUOT: return "the disk is full";
    case EFBIG: return "the file would be larger than is allowed";
    case EACCES:
    case EPERM: return "permission denied";
    case EROFS: return "the file system is read-only";
    case ENOENT: return "the folder does not exist";
    case EISDIR: return "this is a folder";
    case ENAMETOOLONG: return "the name is too long";
    case ELOOP: return "the symbolic links form a circle";
    default: return std::generic_category().message(error);
  }
}

std::string failed(const std::string& path, int error) {
  return fmt::format("'{}' cannot be written: {}", path, reason(error));
}

// 0, or what went wrong.
int write_all(int fd, std::string_view bytes) {
  while (!bytes.empty()) {
    const ssize_t n = ::write(fd, bytes.data(), std::min<std::size_t>(bytes.size(), 1 << 30));
    if (n < 0 && errno == EINTR) continue;
    if (n < 0) return errno;
    bytes.remove_prefix(static_cast<std::size_t>(n));
  }
  return 0;
}

// Where a chain of symbolic links ends, whether there is a file or not.
std::string end_of_links(std::string path, int& error) {
  constexpr int most = 40;
  for (int i = 0; i < most; ++i) {
    char to[PATH_MAX];
    const ssize_t n = ::readlink(path.c_str(), to, sizeof to);
    if (n < 0) return path;
    const std::string next(to, static_cast<std::size_t>(n));
    const std::size_t slash = path.rfind('/');
    path = next.starts_with('/') || slash == std::string::npos ? next : path.substr(0, slash + 1) + next;
  }
  error = ELOOP;
  return path;
}

std::string folder_of(const std::string& path) {
  const std::size_t slash = path.rfind('/');
  return slash == std::string::npos ? "." : slash == 0 ? "/" : path.substr(0, slash);
}

// Short, so that it fits wherever the target's own name does not leave room for more.
std::string random_name(const std::string& folder) {
  static std::atomic<unsigned> count{0};
  timespec now{};
  clock_gettime(CLOCK_REALTIME, &now);
  const auto mixed = (static_cast<unsigned long long>(now.tv_nsec) << 20) ^
                     static_cast<unsigned long long>(now.tv_sec) ^ (static_cast<unsigned long long>(getpid()) << 40) ^
                     (++count * 0x9E3779B97F4A7C15ull);
  return fmt::format("{}/.cvx-{:012x}", folder, mixed & 0xFFFFFFFFFFFFull);
}

// No signal comes between a name that is made and the renaming.
class SignalsHeld {
 public:
  SignalsHeld() {
    sigset_t all;
    sigfillset(&all);
    pthread_sigmask(SIG_SETMASK, &all, &before_);
  }
  ~SignalsHeld() { pthread_sigmask(SIG_SETMASK, &before_, nullptr); }
  SignalsHeld(const SignalsHeld&) = delete;
  SignalsHeld& operator=(const SignalsHeld&) = delete;

 private:
  sigset_t before_{};
};

mode_t usual_mode() {
  // The mask can only be read by setting it, which would affect other threads; /proc shows it too.
  unsigned mask = 022;
  if (std::FILE* status = std::fopen("/proc/self/status", "re")) {
    char line[256];
    while (std::fgets(line, sizeof line, status))
      if (std::sscanf(line, "Umask: %o", &mask) == 1) break;
    std::fclose(status);
  }
  return 0666 & ~mask;
}

}  // namespace

struct FileWriter::Staged {
  enum class How { beside, in_place, through };
  std::string path, target;  // as given; at the end of its links
  How how = How::beside;
  file::Descriptor file;
  std::string name;   // of the temporary file, if it needs one
  std::string bytes;  // for what is written in place or to a device
  bool exists = false;

  ~Staged() {
    if (!name.empty()) ::unlink(name.c_str());
  }

  int stage(std::string_view given) {
    struct stat s {};
    exists = ::stat(target.c_str(), &s) == 0;
    if (!exists && errno != ENOENT) return errno;
    if (exists && S_ISDIR(s.st_mode)) return EISDIR;
    if (exists && !S_ISREG(s.st_mode)) {
      how = How::through;
      bytes = given;
      return 0;
    }
    if (exists && ::access(target.c_str(), W_OK) != 0) return errno;
    if (exists && s.st_nlink > 1) return reserve(given);
    const int error = write_beside(given, s);
    return exists && (error == EACCES || error == EPERM || error == EROFS) ? reserve(given) : error;
  }

  int commit() {
    if (how == How::through) {
      Descriptor device(::open(target.c_str(), O_WRONLY | O_CLOEXEC | O_NOCTTY));
      if (!device) return errno;
      if (const int error = write_all(device.get(), bytes)) return error;
      return device.close();
    }
    const SignalsHeld held;
    if (how == How::in_place) {
      if (::lseek(file.get(), 0, SEEK_SET) < 0) return errno;
      if (const int error = write_all(file.get(), bytes)) return error;
      if (::ftruncate(file.get(), static_cast<off_t>(bytes.size())) != 0) return errno;
      return file.close();
    }
    if (name.empty()) {
      // An unnamed file gets its name: that of the target if it is free, else one to rename.
      const std::string unnamed = fmt::format("/proc/self/fd/{}", file.get());
      if (!exists && ::linkat(AT_FDCWD, unnamed.c_str(), AT_FDCWD, target.c_str(), AT_SYMLINK_FOLLOW) == 0) return 0;
      const std::string beside = random_name(folder_of(target));
      if (::linkat(AT_FDCWD, unnamed.c_str(), AT_FDCWD, beside.c_str(), AT_SYMLINK_FOLLOW) != 0) return errno;
      name = beside;
    }
    if (::rename(name.c_str(), target.c_str()) != 0) return errno;
    name.clear();
    return 0;
  }

 private:
  int write_beside(std::string_view given, const struct stat& old) {
    const std::string folder = folder_of(target);
    // An unnamed file gets its name by /proc; where that is not there, a named one is used.
    static const bool has_proc = ::access("/proc/self/fd", X_OK) == 0;
    if (has_proc) file = Descriptor(::open(folder.c_str(), O_TMPFILE | O_WRONLY | O_CLOEXEC, 0600));
    if (!file) {
      if (has_proc && errno != EOPNOTSUPP && errno != EISDIR && errno != ENOENT) return errno;
      name = random_name(folder);
      file = Descriptor(::open(name.c_str(), O_CREAT | O_EXCL | O_WRONLY | O_CLOEXEC, 0600));
      if (!file) {
        const int error = errno;
        name.clear();
        return error;
      }
    }
    if (const int error = write_all(file.get(), given)) return error;
    // As another user than the owner this may fail; then the file is the writer's.
    if (exists && ::fchown(file.get(), old.st_uid, old.st_gid) != 0) errno = 0;
    if (::fchmod(file.get(), exists ? old.st_mode & 07777 : usual_mode()) != 0) return errno;
    // A name too long for the folder is reported now, before anything else is done.
    const std::size_t slash = target.rfind('/');
    const std::size_t length = slash == std::string::npos ? target.size() : target.size() - slash - 1;
    if (const long most = ::pathconf(folder.c_str(), _PC_NAME_MAX); most > 0 && length > static_cast<std::size_t>(most))
      return ENAMETOOLONG;
    return 0;
  }

  // Writing in place cannot fail for want of room once this was done.
  int reserve(std::string_view given) {
    how = How::in_place;
    bytes = given;
    file = Descriptor(::open(target.c_str(), O_WRONLY | O_CLOEXEC));
    if (!file) return errno;
    if (given.empty()) return 0;
    // The size stays until the bytes are written, so that a file that is not committed is as it was. File systems that
    // cannot reserve space report a full disk only while writing.
    const bool reserved = ::fallocate(file.get(), FALLOC_FL_KEEP_SIZE, 0, static_cast<off_t>(given.size())) == 0;
    return reserved || errno == EOPNOTSUPP ? 0 : errno;
  }
};

FileWriter::FileWriter() = default;
FileWriter::~FileWriter() = default;

std::string FileWriter::stage(const std::string& path, std::string_view bytes) {
  auto staged = std::make_unique<Staged>();
  staged->path = path;
  int error = path.find('\0') != std::string::npos ? EINVAL : 0;
  if (!error) staged->target = end_of_links(path, error);
  if (!error) error = staged->stage(bytes);
  if (error) return failed(path, error);
  staged_.push_back(std::move(staged));
  return {};
}

std::string FileWriter::commit() {
  for (const auto& s : staged_)
    if (const int error = s->commit()) return failed(s->path, error);
  staged_.clear();
  return {};
}

std::string write_file(const std::string& path, std::string_view bytes) {
  FileWriter one;
  if (std::string why = one.stage(path, bytes); !why.empty()) return why;
  return one.commit();
}

}  // namespace corvex
