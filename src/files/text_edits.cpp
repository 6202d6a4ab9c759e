// Changes to a text, collected by place and applied together.

#include "text_edits_internal.hpp"

#include <algorithm>

#include "../model/utf8_internal.hpp"

namespace dryground::files {

TextEdits::TextEdits(std::string text) : text_(std::move(text)), lines_{0} {
    for (std::size_t at = text_.find('\n'); at != std::string::npos; at = text_.find('\n', at + 1))
        lines_.push_back(at + 1);
    line_break_ = lines_.size() > 1 && lines_[1] >= 2 && text_[lines_[1] - 2] == '\r' ? "\r\n" : "\n";
    if (text_.compare(0, 3, "\xEF\xBB\xBF") == 0) lines_[0] = 3;   // a mark that is no character of the text
}

std::size_t TextEdits::offset(std::size_t line, std::size_t column) const {
    if (line == 0 || line > lines_.size()) return text_.size();
    std::size_t at = lines_[line - 1];
    for (; column > 1 && at < text_.size(); --column) at += utf8::length(text_[at]);
    return std::min(at, text_.size());
}

std::size_t TextEdits::line_start(std::size_t offset) const {
    const std::size_t before = offset == 0 ? std::string::npos : text_.rfind('\n', offset - 1);
    return before == std::string::npos ? 0 : before + 1;
}

std::size_t TextEdits::line_end(std::size_t offset) const {
    const std::size_t end = std::min(text_.find('\n', offset), text_.size());
    return end > offset && text_[end - 1] == '\r' ? end - 1 : end;
}

void TextEdits::replace(std::size_t begin, std::size_t end, std::string with) {
    edits_.push_back({begin, end, std::move(with)});
}

std::string TextEdits::result() const {
    std::vector<Edit> edits = edits_;
    std::stable_sort(edits.begin(), edits.end(), [](const Edit& a, const Edit& b) { return a.begin < b.begin; });
    std::string out;
    std::size_t at = 0;
    for (const Edit& edit : edits) {
        out.append(text_, at, edit.begin - at);
        out += edit.with;
        at = edit.end;
    }
    return out.append(text_, at, std::string::npos);
}

}   // namespace dryground::files
