// Inside the files room: changes to a text, collected by their places and applied together.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "toml_internal.hpp"

namespace dryground::files {

class TextEdits {
public:
    explicit TextEdits(std::string text);

    // Lines and columns count from 1; columns in characters, as the TOML parser counts.
    [[nodiscard]] std::size_t offset(std::size_t line, std::size_t column) const;
    [[nodiscard]] std::size_t offset(const toml::source_position& at) const { return offset(at.line, at.column); }
    [[nodiscard]] std::size_t line_end(std::size_t offset) const;   // of the text before the line break
    [[nodiscard]] std::size_t line_start(std::size_t offset) const;
    [[nodiscard]] const std::string& text() const { return text_; }
    [[nodiscard]] const std::string& line_break() const { return line_break_; }   // as the text has it

    void replace(std::size_t begin, std::size_t end, std::string with);
    void replace(const toml::node& node, std::string with) {
        replace(offset(node.source().begin), offset(node.source().end), std::move(with));
    }
    void insert(std::size_t at, std::string what) { replace(at, at, std::move(what)); }

    // Returns the changed text. Places must not overlap; insertions at one place keep their order.
    [[nodiscard]] std::string result() const;

private:
    struct Edit {
        std::size_t begin, end;
        std::string with;
    };
    std::string text_, line_break_;
    std::vector<std::size_t> lines_;   // where they start
    std::vector<Edit> edits_;
};

}   // namespace dryground::files
