// dryground self: what the build needs to install beside the tool. Not listed among the commands.

#include <memory>

#include "../command.hpp"
#include "../manual.hpp"

namespace app {

void add_self(CLI::App& app) {
    auto what = std::make_shared<std::string>();
    CLI::App* command = app.add_subcommand("self", "Completion for bash, or a man page");
    command->group("");
    command->add_option("WHAT", *what, "bash or man")->required()->check(one_of({"bash", "man"}));
    command->callback([what, &app] { print(*what == "bash" ? bash_completion(app) : man_page(app)); });
}

}   // namespace app
