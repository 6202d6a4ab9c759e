// dryground compare: what changed between two versions of a world.

#include <fmt/format.h>

#include <array>
#include <cstdio>
#include <memory>

#include "../command.hpp"
#include "dryground/compare.hpp"
#include "dryground/text.hpp"

namespace app {

namespace dg = dryground;
namespace fs = std::filesystem;

namespace {

struct CompareOptions {
    std::string before, after, format, out;
};

std::string quoted(const std::string& word) {   // for the shell
    std::string result = "'";
    for (const char c : word) result += c == '\'' ? std::string("'\\''") : std::string(1, c);
    return result + "'";
}

// Returns what a program prints; nothing if it fails.
std::optional<std::string> output_of(const std::string& command) {
    const std::unique_ptr<FILE, int (*)(FILE*)> pipe(::popen((command + " 2>/dev/null").c_str(), "r"), ::pclose);
    if (!pipe) return std::nullopt;
    std::string bytes;
    std::array<char, 65536> buffer{};
    for (std::size_t n; (n = std::fread(buffer.data(), 1, buffer.size(), pipe.get())) > 0;)
        bytes.append(buffer.data(), n);
    const bool fine = std::ferror(pipe.get()) == 0;
    return fine && !bytes.empty() ? std::optional(std::move(bytes)) : std::nullopt;
}

// Returns files as they were in a revision, read through git.
dg::FileReader at_revision(const std::string& revision) {
    return [revision](const std::string& name) {
        const fs::path path = fs::absolute(name).lexically_normal();
        fs::path folder = path.parent_path();
        std::error_code error;
        while (!fs::is_directory(folder, error) && folder.has_relative_path()) folder = folder.parent_path();
        const std::string inside = path.lexically_relative(folder).generic_string();
        auto bytes =
            output_of(fmt::format("git -C {} show {}", quoted(folder.string()), quoted(revision + ":./" + inside)));
        return bytes ? dg::Result<std::string>(*std::move(bytes))
                     : dg::Failure{fmt::format("revision '{}' has no such file", revision)};
    };
}

// A version, and where its pictures are.
struct Found {
    dg::Version version;
    dg::ArtSource art;
};
Found version_of(const std::string& name, const std::string& other) {
    const bool revision = name.rfind("git:", 0) == 0;
    const dg::FoundWorld found = WorldArguments{revision ? other : name, {}}.find_or_stop("nothing was compared");
    const dg::FileReader reader = revision ? at_revision(name.substr(4)) : found.reader;
    dg::Result<dg::Version> version = dg::load_version(found.world, reader);
    if (version) return {*std::move(version), {fs::path(found.world).parent_path().string(), reader}};
    say(dg::text(version.report()));
    stop(findings, fmt::format("'{}' cannot be read", name));
}

// Makes a picture for each map that changed; for a map that was added or removed, of the one version that there is.
void draw(const CompareOptions& options, const Found& before, const Found& after, const dg::Comparison& comparison) {
    if (options.out.empty()) stop(misuse, "a picture needs a file: use --out FILE, ending in .png or .svg");
    const std::vector<std::string> maps = dg::changed_maps(comparison);
    std::vector<std::string> drawn;
    for (const dg::ThingChanged& thing : comparison.things)
        if (thing.sort == "map" && thing.map.empty()) drawn.push_back(thing.name);
    drawn.insert(drawn.begin(), maps.begin(), maps.end());
    print(dg::visible(dg::text(comparison)));
    if (drawn.empty()) return say("no map changed: nothing was drawn\n");
    for (const std::string& map : drawn) {
        std::string picture =
            dg::draw_comparison(before.version, after.version, comparison, map, before.art, after.art);
        if (options.format == "png") {
            dg::Result<std::string> png = dg::png_from_svg(picture);
            if (!png) stop(misuse, fmt::format("map '{}' cannot be drawn as PNG: {}", map, png.fault()));
            picture = *std::move(png);
        }
        const std::string path = path_for(options.out, map, drawn.size() > 1).string();
        write_result(path, picture);
        say(fmt::format("wrote {}\n", path));
    }
}

void run_compare(const CompareOptions& options) {
    if (options.before.rfind("git:", 0) == 0 && options.after.rfind("git:", 0) == 0)
        stop(misuse, "one of the two must be a file or a folder: a revision alone does not name a world");
    const Found before = version_of(options.before, options.after), after = version_of(options.after, options.before);
    const dg::Comparison comparison = dg::compare(before.version, after.version);
    if (options.format == "png" || options.format == "svg") return draw(options, before, after, comparison);
    write_result(options.out,
                 options.format == "json" ? dg::compare_json(comparison) : dg::visible(dg::text(comparison)));
}

}   // namespace

void add_compare(CLI::App& app) {
    auto options = std::make_shared<CompareOptions>();
    CLI::App* command = app.add_subcommand("compare", "Show what changed between two versions of a world");
    command->add_option("OLD", options->before, "A world, its folder, or git:REVISION of the other one")
        ->required()
        ->type_name("");
    command->add_option("NEW", options->after, "The same, as it is now")->required()->type_name("");
    add_format(*command, options->format, options->out, {"text", "json", "png", "svg"},
               "text or json; or pictures of the maps that changed");
    command->add_option("--out", options->out, "Write to a file")->type_name("FILE");
    command->footer(
        "Examples: dryground compare demo/world.toml demo/broken/world.toml\n"
        "          dryground compare git:HEAD~3 my_shore/world.toml --out changed.png");
    command->callback([options] { run_compare(*options); });
}

}   // namespace app
