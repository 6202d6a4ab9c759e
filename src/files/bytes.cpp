// Reads and writes files: whole or not at all.

#include <fmt/format.h>
#include <unistd.h>

#include <csignal>
#include <cstdio>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <system_error>

#include "dryground/files.hpp"

namespace dryground {

namespace fs = std::filesystem;

Result<std::string> read_file(const std::string& name) {
    const fs::path path = name;
    std::error_code error;
    const fs::file_status status = fs::status(path, error);
    if (status.type() == fs::file_type::not_found) return Failure{"there is no such file"};
    if (status.type() == fs::file_type::directory) return Failure{"it is a directory"};
    if (error) return Failure{error.message()};
    if (status.type() != fs::file_type::regular) return Failure{"it is not a regular file"};
    constexpr std::uintmax_t most = std::uintmax_t{1} << 30;
    const std::uintmax_t size = fs::file_size(path, error);
    if (error) return Failure{error.message()};
    if (size > most) return Failure{"it is larger than 1 GiB"};
    std::ifstream in(path, std::ios::binary);
    if (!in) return Failure{std::strerror(errno)};
    std::string bytes(static_cast<std::size_t>(size), '\0');
    in.read(bytes.data(), static_cast<std::streamsize>(size));
    if (in.bad() || in.gcount() != static_cast<std::streamsize>(size))
        return Failure{"it changed while it was read, or could not be read to its end"};
    return bytes;
}

namespace {

// Writes and closes; returns the reason of a failure, empty on success.
std::string write_through(const fs::path& path, const ByteMaker& make, bool to_disk) {
    std::FILE* out = std::fopen(path.c_str(), "wb");
    if (out == nullptr) return std::strerror(errno);
    std::string why;
    const Result<void> made = make([&](std::string_view bytes) {
        if (std::fwrite(bytes.data(), 1, bytes.size(), out) != bytes.size() && why.empty()) why = std::strerror(errno);
        return why.empty();
    });
    if (std::fflush(out) != 0 && why.empty()) why = std::strerror(errno);
    if (to_disk && ::fsync(::fileno(out)) != 0 && why.empty()) why = std::strerror(errno);
    if (why.empty()) why = made.fault();
    if (std::fclose(out) != 0 && why.empty()) why = std::strerror(errno);
    return why;
}

}   // namespace

namespace {

ByteMaker all_at_once(std::string_view bytes) {
    return [bytes](const ByteSink& sink) {
        sink(bytes);
        return Result<void>();
    };
}

// A file that is kept beside its place until all are written.
struct Staged {
    fs::path path, beside;
};

// Removes what a program that was killed while writing left beside a file.
void clear_left_over(const fs::path& path) {
    const std::string before = path.filename().string() + ".", behind = ".part";
    std::error_code error;
    const fs::path folder = path.has_parent_path() ? path.parent_path() : fs::path(".");
    for (fs::directory_iterator i(folder, error), end; !error && i != end; i.increment(error)) {
        const std::string name = i->path().filename().string();
        if (name.size() <= before.size() + behind.size() || name.compare(0, before.size(), before) != 0 ||
            name.compare(name.size() - behind.size(), behind.size(), behind) != 0)
            continue;
        const std::string middle = name.substr(before.size(), name.size() - before.size() - behind.size());
        if (middle.size() > 9 || middle.find_first_not_of("0123456789") != std::string::npos) continue;
        std::error_code ignored;
        if (::kill(std::stoi(middle), 0) != 0 && errno == ESRCH) fs::remove(i->path(), ignored);
    }
}

// Returns the reason of a failure; empty on success.
std::string stage(const fs::path& wanted, const ByteMaker& make, std::vector<Staged>& staged) {
    std::error_code error;
    const fs::file_status status = fs::status(wanted, error);
    if (fs::is_directory(status)) return "it is a directory";
    // A device or a pipe has no old content to keep, and must not be replaced by a file.
    if (fs::exists(status) && !fs::is_regular_file(status)) return write_through(wanted, make, false);
    const fs::path path = fs::exists(status) ? fs::canonical(wanted, error) : wanted;   // a link stays a link
    fs::path beside = path;
    beside += fmt::format(".{}.part", ::getpid());
    clear_left_over(path);
    staged.push_back({path, beside});
    return write_through(beside, make, true);
}

std::string take_places(const std::vector<Staged>& staged) {
    std::error_code error;
    for (const Staged& file : staged) {
        fs::rename(file.beside, file.path, error);
        if (error) return error.message();
    }
    return {};
}

// If nothing has failed so far, moves the staged files into their places; else removes them.
Result<void> finish(std::string why, const std::vector<Staged>& staged) {
    if (why.empty()) why = take_places(staged);
    if (why.empty()) return {};
    std::error_code error;
    for (const Staged& file : staged) fs::remove(file.beside, error);
    return Failure{std::move(why)};
}

}   // namespace

Result<void> write_file(const std::string& wanted, std::string_view bytes) {
    return write_file(wanted, all_at_once(bytes));
}

Result<void> write_file(const std::string& wanted, const ByteMaker& make) {
    std::vector<Staged> staged;
    return finish(stage(wanted, make, staged), staged);
}

Result<void> write_files(const std::vector<NamedBytes>& files) {
    std::vector<Staged> staged;
    for (const NamedBytes& file : files) {
        std::error_code error;
        const fs::path folder = fs::path(file.file).parent_path();
        if (!folder.empty()) fs::create_directories(folder, error);
        const std::string why = error ? error.message() : stage(file.file, all_at_once(file.bytes), staged);
        if (!why.empty()) return finish(fmt::format("'{}': {}", file.file, why), staged);
    }
    return finish({}, staged);
}

}   // namespace dryground
