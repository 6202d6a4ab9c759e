"""Adds a search of all words to the site that scripts/docs makes: words.html, with an entry in the menu.

The site's own search knows names. This one knows sections: of each page the text below a heading, of each header its
introduction, of each call what is said of it. They are listed in words_index.js; docs/words.js searches them."""
import html
import json
import re

HEADING = re.compile(r'<h[1-4][^>]*>(.*?)</h[1-4]>', re.S)
ANCHOR = re.compile(r'\bid="([^"]+)"')
TITLE = re.compile(r'<div class="title">(.*?)</div>', re.S)
CONTENTS = re.compile(r'<div class="contents">(.*)</div><!-- contents -->', re.S)
MEMBER = re.compile(r'<a id="([^"]+)"[^>]*></a>\s*<h2 class="memtitle">.*?</span>(.*?)</h2>(.*?)(?=<a id="[^"]+"[^>]*></a>\s*<h2 class="memtitle">|\Z)', re.S)
LEAST = 40   # characters of text that make a section worth finding


def plain(markup):
    """The text of a piece of a page."""
    markup = re.sub(r'<(script|style)\b.*?</\1>', ' ', markup, flags=re.S)
    markup = re.sub(r'</(p|div|li|td|tr|pre|dt|dd|h\d)>|<br */?>', ' ', markup)
    return re.sub(r'\s+', ' ', html.unescape(re.sub(r'<[^>]*>', '', markup))).replace('\u200b', '').strip()


def sections_of(page, text, has_headings):
    """[page, anchor, title of the page, heading, text] for each section of a page."""
    contents = CONTENTS.search(text)
    if contents is None:
        return
    title = plain(TITLE.search(text).group(1)) if TITLE.search(text) else page
    body = contents.group(1)
    members = body.find('<h2 class="memtitle">')
    if has_headings:
        begin, anchor, heading = 0, '', title
        for found in [*HEADING.finditer(body), None]:
            words = plain(body[begin:found.start() if found else len(body)])
            if len(words) >= LEAST:
                yield [page, anchor, title, heading, words]
            if found:
                anchors = ANCHOR.findall(found.group(0))
                begin, anchor, heading = found.end(), anchors[-1] if anchors else '', plain(found.group(1))
        return
    introduction = body.find('<a name="details"')
    if introduction >= 0:
        words = plain(body[introduction:members if members >= 0 else len(body)])
        if len(words) >= LEAST:
            yield [page, 'details', title, title, words]
    for anchor, name, rest in MEMBER.findall(body):
        words = plain(rest)
        if len(words) >= LEAST:
            yield [page, anchor, title, plain(name), words]


def add_words(site, script):
    """Writes the index and the page, and enters it in the menu; gives the number of sections."""
    index = []
    for page in sorted(site.glob('*.html')):
        is_text = page.name.startswith('md_') or page.name == 'index.html'
        is_call = re.match(r'(namespace|class|struct)dryground', page.name) and not page.name.endswith('-members.html')
        if is_text or is_call or page.name.endswith('_8hpp.html'):
            index += sections_of(page.name, page.read_text(encoding='utf-8'), is_text)
    (site / 'words_index.js').write_text(f'const sections = {json.dumps(index, ensure_ascii=False)};\n', encoding='utf-8')
    (site / 'words.js').write_text(script.read_text(encoding='utf-8'), encoding='utf-8')

    page = (site / 'index.html').read_text(encoding='utf-8')
    page = CONTENTS.sub(lambda _: '''<div class="contents">
<p><label>Words <input type="search" id="words" size="40" autofocus></label> <span id="words_count" role="status"></span></p>
<ol id="words_found"></ol>
<script src="words_index.js"></script><script src="words.js"></script>
</div><!-- contents -->''', page)
    page = re.sub(r'<div class="title">.*?</div>', '<div class="title">Search all pages</div>', page, flags=re.S)
    page = re.sub(r'<title>.*?</title>', '<title>Dry Ground: Search all pages</title>', page, flags=re.S)
    (site / 'words.html').write_text(page, encoding='utf-8')
    menu = site / 'menudata.js'
    menu.write_text(re.sub(r'(\{text:"Main Page",url:"index.html"\},)', r'\1\n{text:"Search all pages",url:"words.html"},',
                           menu.read_text(encoding='utf-8')), encoding='utf-8')
    return len(index)
