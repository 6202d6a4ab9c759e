// Completion for bash and a man page, made from what the commands declare.

#include "manual.hpp"

#include <fmt/format.h>

#include "dryground/version.hpp"

namespace app {

namespace {

std::vector<const CLI::App*> commands_of(const CLI::App& cli) {
    return cli.get_subcommands([](const CLI::App* command) { return !command->get_group().empty(); });
}

std::vector<const CLI::Option*> options_of(const CLI::App& command) {
    return command.get_options([](const CLI::Option* option) { return !option->get_positional(); });
}

// Returns what may follow an option, if that is one of a few words: "FORMAT:{json,cbor}".
std::string choices_of(const CLI::Option& option) {
    const std::string type = option.get_type_name();
    const std::size_t open = type.find('{'), close = type.find('}');
    if (open == std::string::npos || close == std::string::npos) return {};
    std::string words = type.substr(open + 1, close - open - 1);
    for (char& c : words)
        if (c == ',') c = ' ';
    return words;
}

std::string long_name(const CLI::Option& option) {
    return option.get_lnames().empty() ? "" : "--" + option.get_lnames().front();
}

// Visits a command and those below it: "edit", "edit object", "edit object move".
template <class Call>
void each_command(const CLI::App& cli, const std::string& words, const Call& call) {
    for (const CLI::App* command : commands_of(cli)) {
        const std::string name = words.empty() ? command->get_name() : words + " " + command->get_name();
        call(name, *command);
        each_command(*command, name, call);
    }
}

std::string names_below(const CLI::App& cli) {
    std::string names;
    for (const CLI::App* command : commands_of(cli)) names += (names.empty() ? "" : " ") + command->get_name();
    return names;
}

// Returns text for a man page: backslashes and leading dots have a meaning there.
std::string troff(const std::string& text) {
    std::string result;
    bool starts_line = true;
    for (const char c : text) {
        if (c == '\\') result += '\\';
        if (starts_line && (c == '.' || c == '\'')) result += "\\&";
        if (c == '-') result += '\\';
        result += c;
        starts_line = c == '\n';
    }
    return result;
}

std::string option_entry(const CLI::Option& option) {
    std::string names;
    for (const std::string& name : option.get_snames()) names += fmt::format("{}-{}", names.empty() ? "" : ", ", name);
    for (const std::string& name : option.get_lnames()) names += fmt::format("{}--{}", names.empty() ? "" : ", ", name);
    const std::string type = option.get_type_name().substr(0, option.get_type_name().find(':'));
    return fmt::format(".TP\n\\fB{}\\fR{}\n{}\n", troff(names),
                       option.get_items_expected_max() == 0 || type.empty() ? "" : " \\fI" + troff(type) + "\\fR",
                       troff(option.get_description()));
}

}   // namespace

std::string bash_completion(const CLI::App& cli) {
    std::string options, choices, below = fmt::format("        '') words='{}' ;;\n", names_below(cli));
    each_command(cli, "", [&](const std::string& words, const CLI::App& command) {
        std::string names;
        for (const CLI::Option* option : options_of(command)) {
            const std::string name = long_name(*option);
            if (name.empty()) continue;
            names += (names.empty() ? "" : " ") + name;
            if (const std::string given = choices_of(*option); !given.empty())
                choices += fmt::format("        '{} {}') words='{}' ;;\n", words, name, given);
        }
        options += fmt::format("        '{}') options='{}' ;;\n", words, names);
        if (const std::string names_here = names_below(command); !names_here.empty())
            below += fmt::format("        '{}') words='{}' ;;\n", words, names_here);
    });
    // The command so far is made of those words that name one.
    return "# Completion for bash: source this file, or put it where bash-completion looks.\n"
           "_dryground() {\n"
           "    local word=${COMP_WORDS[COMP_CWORD]} before=${COMP_WORDS[COMP_CWORD-1]} command='' words='' options='' "
           "i\n"
           "    for ((i = 1; i < COMP_CWORD; ++i)); do\n"
           "        words=''\n"
           "        case \"$command\" in\n" +
           below +
           "        esac\n"
           "        [[ \" $words \" == *\" ${COMP_WORDS[i]} \"* ]] && command=\"${command:+$command "
           "}${COMP_WORDS[i]}\"\n"
           "    done\n"
           "    words=''\n"
           "    case \"$command $before\" in\n" +
           choices +
           "    esac\n"
           "    if [[ -n $words ]]; then COMPREPLY=($(compgen -W \"$words\" -- \"$word\")); return; fi\n"
           "    case \"$command\" in\n" +
           below + "    esac\n    case \"$command\" in\n" + options +
           "    esac\n"
           "    COMPREPLY=()\n"
           "    if [[ $word == -* ]]; then COMPREPLY=($(compgen -W \"$options\" -- \"$word\")); return; fi\n"
           "    if [[ -n $words ]]; then COMPREPLY=($(compgen -W \"$words\" -- \"$word\")); fi\n"
           "}\n"
           "complete -o default -F _dryground dryground\n";
}

std::string man_page(const CLI::App& cli) {
    std::string page = fmt::format(
        ".TH DRYGROUND 1 \"\" \"dryground {}\" \"User Commands\"\n.SH NAME\ndryground \\- checks and merges tile maps\n"
        ".SH SYNOPSIS\n\\fBdryground\\fR \\fICOMMAND\\fR \\fIFILE\\fR [\\fIOPTIONS\\fR]\n.SH DESCRIPTION\n{}\n"
        "FILE is a world, a map or a tile set; the latter two find their world by walking up the folders.\n",
        dryground::version, troff(cli.get_description()));
    each_command(cli, "", [&](const std::string& words, const CLI::App& command) {
        page += fmt::format(".SH {}\n{}\n", troff(words), troff(command.get_description()));
        for (const CLI::Option* option : options_of(command)) page += option_entry(*option);
        if (!command.get_footer().empty()) page += fmt::format(".PP\n.nf\n{}\n.fi\n", troff(command.get_footer()));
    });
    return page +
           ".SH EXIT STATUS\n.TP\n0\ndone and clean\n.TP\n1\nfindings in the way\n.TP\n2\n"
           "a bad command line, or a file that cannot be opened or written\n";
}

}   // namespace app
