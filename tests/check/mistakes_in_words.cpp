#include <algorithm>
#include <cctype>
#include <set>

#include "mistakes.hpp"

namespace mistakes {

LineColumn line_column(const std::string& text, std::size_t byte) {
    LineColumn place;
    for (std::size_t i = 0; i < byte; ++i)
        if (text[i] == '\n')
            ++place.line, place.column = 1;
        else if ((static_cast<unsigned char>(text[i]) & 0xC0) != 0x80)
            ++place.column;
    return place;
}

namespace {

bool is_bare(char c) { return std::isalnum(static_cast<unsigned char>(c)) != 0 || c == '_' || c == '-' || c == '.'; }

// Skips everything in the TOML that is not a word: comments, and rows in ''' quotes.
std::size_t past_silence(const std::string& text, std::size_t i) {
    if (text[i] == '#') return std::min(text.find('\n', i), text.size());
    if (text.compare(i, 3, "'''") == 0) return text.find("'''", i + 3) + 3;
    if (text[i] == '\'') return text.find('\'', i + 1) + 1;
    return i;
}

std::size_t end_of_text(const std::string& text, std::size_t i) {
    for (++i; text[i] != '"'; ++i)
        if (text[i] == '\\') ++i;
    return i + 1;
}

bool is_followed_by_equals(const std::string& text, std::size_t i) {
    while (i < text.size() && text[i] == ' ') ++i;
    return i < text.size() && text[i] == '=';
}

Word::Sort sort_of(const std::string& word) {
    if (word == "true" || word == "false") return Word::Sort::yes_no;
    return Word::Sort::number;
}

}   // namespace

std::vector<Word> words_of(const std::string& toml) {
    std::vector<Word> words;
    std::string key, table;
    for (std::size_t i = 0; i < toml.size();) {
        if (const std::size_t past = past_silence(toml, i); past != i) {
            i = past;
        } else if (toml[i] == '[' && (i == 0 || toml[i - 1] == '\n')) {
            const std::size_t first = toml.find_first_not_of('[', i), end = toml.find(']', first);
            table = toml.substr(first, end - first);
            words.push_back({Word::Sort::header, first, end - first, table});
            i = toml.find_first_not_of(']', end);
        } else if (toml[i] == '"') {
            const std::size_t end = end_of_text(toml, i);
            const std::string inside = toml.substr(i + 1, end - i - 2);
            if (is_followed_by_equals(toml, end))
                key = inside;
            else
                words.push_back({Word::Sort::text, i, end - i, key});
            i = end;
        } else if (is_bare(toml[i])) {
            std::size_t end = i;
            while (end < toml.size() && is_bare(toml[end])) ++end;
            const std::string word = toml.substr(i, end - i);
            if (is_followed_by_equals(toml, end)) {
                key = word;
                const bool at_line_start = i == 0 || toml[i - 1] == '\n';
                words.push_back({Word::Sort::key, i, end - i, at_line_start ? table : ""});
            } else {
                words.push_back({sort_of(word), i, end - i, key});
            }
            i = end;
        } else {
            ++i;
        }
    }
    return words;
}

Files replaced(Files files, const std::string& file, std::size_t at, std::size_t size, const std::string& by) {
    files.at(file).replace(at, size, by);
    return files;
}

namespace {

using Sort = Word::Sort;

// "peat" -> "paet": two letters swapped; short or even words lose their last letter.
std::string misspelt(std::string word) {
    for (std::size_t i = 1; i + 2 < word.size(); ++i)
        if (word[i] != word[i + 1] && std::isalpha(static_cast<unsigned char>(word[i])) != 0 &&
            std::isalpha(static_cast<unsigned char>(word[i + 1])) != 0) {
            std::swap(word[i], word[i + 1]);
            return word;
        }
    return word + word.back();
}

// What nobody reads as a name.
bool is_free(const std::string& key) {
    static const std::set<std::string> keys{"title", "note",    "colour", "tune",  "why",       "default",
                                            "tags",  "format",  "name",   "rows",  "flip",      "opens",
                                            "first", "picture", "tagged", "tiles", "turns_into"};
    return keys.count(key) != 0;
}

class Slips {
public:
    explicit Slips(const Files& files) : files_(files) {}

    void word(const std::string& file, const Word& word) {
        const std::string& text = files_.at(file);
        const std::string said = text.substr(word.at, word.size);
        switch (word.sort) {
            case Sort::key:
                key(file, word, said);
                break;
            case Sort::header:
                header(file, word, said);
                break;
            case Sort::yes_no:
                add("a boolean in quotes", file, word, '"' + said + '"', {Rule::wrong_type, Rule::kind_field});
                break;
            case Sort::number:
                add("a number in quotes", file, word, '"' + said + '"', {Rule::wrong_type, Rule::kind_field});
                break;
            case Sort::text:
                if (!is_free(word.key) && said.find(' ') == std::string::npos)
                    add("a name misspelt", file, word, '"' + misspelt(said.substr(1, said.size() - 2)) + '"', naming());
                if (word.key == "format")
                    add("a newer format", file, word, said.substr(0, said.size() - 2) + "2\"", {Rule::format_version});
        }
    }

    void key(const std::string& file, const Word& word, const std::string& said) {
        static const std::set<std::string> declaring{"barriers", "flags",  "storeys",  "facts",
                                                     "events",   "shapes", "map_props"};
        if (declaring.count(word.key) != 0 && said.find('.') == std::string::npos)
            declared(file, word, said, misspelt(said));
        else if (said == "format")
            put("a key misspelt", file, word, misspelt(said), {Rule::missing_key}, {{file, 1, 1}});
        else
            add("a key misspelt", file, word, misspelt_key(said), {Rule::unknown_key, Rule::kind_field});
    }

    // Rows of a layer: one too short, one too long, an unknown character, one missing.
    void rows(const std::string& file) {
        const std::string& text = files_.at(file);
        for (std::size_t at = text.find("'''\n"); at != std::string::npos; at = text.find("'''\n", at + 4)) {
            const std::size_t first = at + 4, end = text.find("'''", first);
            const std::size_t width = text.find('\n', first) - first;
            const int first_line = line_column(text, first).line, last_line = line_column(text, end).line;
            int picked = 0;
            for (std::size_t row = first; row < end; row += width + 1, ++picked) {
                const int line = line_column(text, row).line;
                const auto put = [&](const char* sort, std::size_t place, std::size_t size, const char* by, Rule rule,
                                     Spot spot) {
                    mistakes_.push_back({sort,
                                         described(file, line, sort),
                                         replaced(files_, file, place, size, by),
                                         {rule},
                                         {std::move(spot)}});
                };
                const int column = static_cast<int>(width / 2) + 1;
                if (picked == 1) put("a row too short", row, 1, "", Rule::row_length, {file, line, line});
                if (picked == 2) put("a row too long", row, 0, ".", Rule::row_length, {file, line, line});
                if (picked == 3)
                    put("a character without a legend", row + width / 2, 1, "?", Rule::legend_missing,
                        {file, line, line, column, column});
                if (picked == 4)
                    put("a row gone", row, width + 1, "", Rule::grid_size, {file, first_line - 2, last_line});
            }
            at = end;
        }
    }

    std::vector<Mistake> take() { return std::move(mistakes_); }

private:
    static std::vector<Rule> naming() {
        return {Rule::unknown_name, Rule::unknown_key, Rule::link_target,    Rule::name_twins,  Rule::start_missing,
                Rule::file_missing, Rule::kind_field,  Rule::legend_missing, Rule::out_of_range};
    }
    static std::string misspelt_key(const std::string& key) {
        const std::size_t dot = key.rfind('.');
        return dot == std::string::npos ? misspelt(key) : misspelt(key.substr(0, dot)) + key.substr(dot);
    }
    static std::string described(const std::string& file, int line, const std::string& what) {
        return fmt::format("{}:{}: {}", file, line, what);
    }

    // "[movers.warden]": the table's own word, and the name it declares, which others use.
    void header(const std::string& file, const Word& word, const std::string& said) {
        const std::size_t dot = said.find('.');
        add("a table misspelt", file, word,
            misspelt(said.substr(0, dot)) + (dot == std::string::npos ? "" : said.substr(dot)),
            {Rule::unknown_key, Rule::unknown_name, Rule::missing_key});
        if (dot == std::string::npos || said == "layers.legend") return;
        declared(file, word, said.substr(dot + 1), said.substr(0, dot + 1) + misspelt(said.substr(dot + 1)));
    }

    // A name spelt otherwise where it is declared: reported where it is used, or as the twin of another.
    void declared(const std::string& file, const Word& word, const std::string& name, const std::string& by) {
        std::vector<Spot> spots = lines_with('"' + name + '"'), more = lines_with(name + " = ");
        spots.insert(spots.end(), more.begin(), more.end());
        put("a name declared otherwise than used", file, word, by,
            {Rule::unknown_name, Rule::kind_field, Rule::name_twins}, spots);
    }

    std::vector<Spot> lines_with(const std::string& word) const {
        std::vector<Spot> spots;
        for (const auto& [file, text] : files_)
            for (std::size_t at = text.find(word); at != std::string::npos; at = text.find(word, at + 1)) {
                const int line = line_column(text, at).line;
                spots.push_back({file, line, line});
            }
        return spots;
    }

    void add(const char* sort, const std::string& file, const Word& word, const std::string& by,
             std::vector<Rule> rules) {
        const LineColumn place = line_column(files_.at(file), word.at);
        // The key of a wrong value may be named: "harm = ".
        const int before =
            word.sort == Sort::key || word.sort == Sort::header ? 0 : static_cast<int>(word.key.size()) + 3;
        put(sort, file, word, by, std::move(rules),
            {{file, place.line, place.line, place.column - before, place.column + static_cast<int>(word.size)}});
    }

    void put(const char* sort, const std::string& file, const Word& word, const std::string& by,
             std::vector<Rule> rules, std::vector<Spot> spots) {
        const std::string said = files_.at(file).substr(word.at, word.size);
        const int line = line_column(files_.at(file), word.at).line;
        mistakes_.push_back({sort, described(file, line, said + " -> " + by),
                             replaced(files_, file, word.at, word.size, by), std::move(rules), std::move(spots)});
    }

    const Files& files_;
    std::vector<Mistake> mistakes_;
};

}   // namespace

std::vector<Mistake> slips(const Files& files) {
    Slips slips(files);
    for (const auto& [file, text] : files) {
        if (!file.ends_with(".toml")) continue;
        for (const Word& word : words_of(text)) slips.word(file, word);
        slips.rows(file);
    }
    return slips.take();
}

bool is_found(const Mistake& mistake, const dryground::Report& report) {
    return std::any_of(report.findings().begin(), report.findings().end(), [&](const dryground::Finding& finding) {
        if (std::find(mistake.rules.begin(), mistake.rules.end(), finding.rule) == mistake.rules.end()) return false;
        const dryground::Place& at = finding.place;
        return std::any_of(mistake.spots.begin(), mistake.spots.end(), [&](const Spot& spot) {
            return at.file == spot.file && at.line >= spot.first_line && at.line <= spot.last_line &&
                   (spot.first_column == 0 || (at.column >= spot.first_column && at.column <= spot.last_column));
        });
    });
}

}   // namespace mistakes
