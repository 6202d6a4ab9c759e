#!/usr/bin/python3
"""Draws all art of the demo world, the tidal field station at Sedge Point: `scripts/make_art.py [DIR]`.

Everything is drawn from a fixed seed: the same script gives the same pixels. DIR is the demo world's folder.
"""

import random
import sys
from pathlib import Path

from PIL import Image, ImageDraw

CELL = 16
PEAT, PEAT_DARK, PEAT_LIGHT = (92, 64, 48), (70, 48, 38), (118, 86, 62)
SEDGE, SEDGE_LIGHT, SEDGE_DARK = (110, 142, 70), (156, 180, 92), (70, 102, 58)
STONE, STONE_LIGHT, STONE_DARK = (132, 136, 140), (164, 168, 168), (98, 102, 110)
BRINE, BRINE_LIGHT, BRINE_DARK = (52, 116, 132), (104, 168, 176), (38, 92, 112)
WOOD, WOOD_LIGHT, WOOD_DARK = (158, 114, 70), (190, 146, 94), (112, 78, 50)
ROPE, STEAM, RUST, LAMP = (206, 186, 136), (226, 232, 232), (168, 84, 52), (244, 210, 110)
FLOOR, FLOOR_DARK = (184, 174, 154), (164, 152, 132)
WALL, WALL_TOP = (94, 98, 116), (126, 130, 146)


def tile():
    image = Image.new("RGBA", (CELL, CELL), (0, 0, 0, 0))
    return image, ImageDraw.Draw(image)


def speckle(image, chance, colours, count):
    for _ in range(count):
        x, y = chance.randrange(CELL), chance.randrange(CELL)
        if image.getpixel((x, y))[3]:
            image.putpixel((x, y), chance.choice(colours) + (255,))


def soil(chance, top):
    image, draw = tile()
    draw.rectangle([0, 0, 15, 15], fill=PEAT)
    speckle(image, chance, [PEAT_DARK, PEAT_LIGHT], 34)
    if top:
        draw.rectangle([0, 0, 15, 2], fill=SEDGE)
        for x in range(16):
            draw.line([x, 2, x, 2 + chance.randrange(3)], fill=SEDGE_DARK)
            if chance.random() < 0.45:
                image.putpixel((x, 0), SEDGE_LIGHT + (255,))
    return image


def masonry(chance, top):
    image, draw = tile()
    draw.rectangle([0, 0, 15, 15], fill=STONE)
    for y, shift in ((0, 0), (5, 4), (10, 0)):
        draw.line([0, y + 4, 15, y + 4], fill=STONE_DARK)
        for x in (shift + 3, shift + 11):
            draw.line([x % 16, y, x % 16, y + 4], fill=STONE_DARK)
    speckle(image, chance, [STONE_LIGHT], 14)
    if top:
        draw.rectangle([0, 0, 15, 1], fill=STONE_LIGHT)
    return image


def bank(chance):
    image = soil(chance, False)
    for y in range(16):
        for x in range(16):
            depth = x + y - 15
            if depth < 0:
                image.putpixel((x, y), (0, 0, 0, 0))
            elif depth < 3:
                image.putpixel((x, y), (SEDGE_LIGHT if depth == 0 else SEDGE) + (255,))
    return image


def kerb(chance):
    image, draw = tile()
    stone = masonry(chance, True)
    image.paste(stone.crop((0, 0, 16, 8)), (0, 8))
    return image


def brine(chance, top):
    image, draw = tile()
    draw.rectangle([0, 3 if top else 0, 15, 15], fill=BRINE)
    speckle(image, chance, [BRINE_DARK], 16)
    if top:
        for x in range(16):
            y = 2 + (1 if (x // 4) % 2 else 0)
            draw.line([x, y, x, y + 1], fill=BRINE_LIGHT)
    else:
        draw.line([2, 5, 5, 5], fill=BRINE_LIGHT)
        draw.line([9, 11, 13, 11], fill=BRINE_LIGHT)
    return image


def reeds(chance):
    image, draw = tile()
    for x in (1, 3, 6, 8, 11, 14):
        height = chance.randrange(6, 14)
        draw.line([x, 15, x + chance.randrange(-1, 2), 15 - height], fill=chance.choice([SEDGE_DARK, SEDGE, SEDGE_LIGHT]))
    draw.line([6, 4, 6, 7], fill=WOOD_DARK)
    draw.line([11, 6, 11, 9], fill=WOOD_DARK)
    return image


def net():
    image, draw = tile()
    for i in range(-16, 32, 5):
        draw.line([i, 0, i + 15, 15], fill=ROPE)
        draw.line([i + 15, 0, i, 15], fill=ROPE)
    return image


def steam(chance):
    image, draw = tile()
    for x, y, r in ((4, 11, 3), (9, 8, 4), (12, 3, 2), (5, 4, 2)):
        draw.ellipse([x - r, y - r, x + r, y + r], fill=STEAM + (150,))
    return image


def crate():
    image, draw = tile()
    draw.rectangle([0, 0, 15, 15], fill=WOOD, outline=WOOD_DARK)
    draw.rectangle([2, 2, 13, 13], outline=WOOD_DARK)
    draw.line([3, 12, 12, 3], fill=WOOD_DARK, width=2)
    draw.line([1, 1, 14, 1], fill=WOOD_LIGHT)
    return image


def post():
    image, draw = tile()
    draw.rectangle([5, 0, 10, 15], fill=WOOD, outline=WOOD_DARK)
    draw.line([7, 1, 7, 14], fill=WOOD_LIGHT)
    draw.rectangle([4, 3, 11, 5], fill=ROPE)
    return image


def floor(chance):
    image, draw = tile()
    draw.rectangle([0, 0, 15, 15], fill=FLOOR)
    draw.line([0, 15, 15, 15], fill=FLOOR_DARK)
    draw.line([15, 0, 15, 15], fill=FLOOR_DARK)
    speckle(image, chance, [FLOOR_DARK], 8)
    return image


def wall():
    image, draw = tile()
    draw.rectangle([0, 0, 15, 15], fill=WALL)
    draw.rectangle([0, 0, 15, 8], fill=WALL_TOP)
    draw.line([0, 8, 15, 8], fill=(70, 74, 92))
    for x in (4, 12):
        draw.line([x, 9, x, 15], fill=(78, 82, 100))
    return image


def boardwalk(chance):
    image, draw = tile()
    for x in range(0, 16, 4):
        draw.rectangle([x, 3, x + 3, 12], fill=WOOD, outline=WOOD_DARK)
        draw.line([x + 1, 4, x + 1, 11], fill=WOOD_LIGHT)
    draw.rectangle([0, 0, 15, 2], fill=WOOD_DARK)
    draw.rectangle([0, 13, 15, 15], fill=WOOD_DARK)
    draw.line([0, 0, 15, 0], fill=ROPE)
    draw.line([0, 13, 15, 13], fill=ROPE)
    return image


def mat(chance):
    image = floor(chance)
    draw = ImageDraw.Draw(image)
    draw.rectangle([2, 4, 13, 11], fill=RUST, outline=(120, 58, 40))
    for y in (6, 8):
        draw.line([4, y, 11, y], fill=ROPE)
    return image


def pump(chance):
    image = floor(chance)
    draw = ImageDraw.Draw(image)
    draw.rectangle([1, 2, 14, 14], fill=STONE_DARK, outline=(60, 64, 72))
    draw.ellipse([3, 3, 12, 12], fill=RUST, outline=(110, 54, 36))
    draw.ellipse([6, 6, 9, 9], fill=STONE_LIGHT)
    return image


def shelf(chance):
    image = floor(chance)
    draw = ImageDraw.Draw(image)
    draw.rectangle([0, 0, 15, 9], fill=WOOD, outline=WOOD_DARK)
    for x, colour in ((2, RUST), (5, SEDGE), (8, BRINE), (11, LAMP)):
        draw.rectangle([x, 2, x + 2, 6], fill=colour)
    return image


def pipe(chance, bend):
    image = floor(chance)
    draw = ImageDraw.Draw(image)
    if bend:
        draw.rectangle([0, 5, 10, 10], fill=STONE_DARK)
        draw.rectangle([5, 5, 10, 15], fill=STONE_DARK)
        draw.line([0, 6, 9, 6], fill=STONE_LIGHT)
        draw.line([6, 7, 6, 15], fill=STONE_LIGHT)
    else:
        draw.rectangle([0, 5, 15, 10], fill=STONE_DARK)
        draw.line([0, 6, 15, 6], fill=STONE_LIGHT)
    return image


def turnstile(chance):
    image = floor(chance)
    draw = ImageDraw.Draw(image)
    draw.rectangle([0, 0, 15, 2], fill=STONE_DARK)
    draw.polygon([(4, 11), (8, 5), (12, 11)], fill=LAMP, outline=WOOD_DARK)
    return image


def stairs(down):
    image, draw = tile()
    draw.rectangle([0, 0, 15, 15], fill=WOOD_DARK)
    for i in range(5):
        colour = tuple(round(a + (b - a) * (4 - i if down else i) / 4) for a, b in zip(WOOD_LIGHT, WOOD_DARK))
        draw.rectangle([2, 3 * i, 13, 3 * i + 1], fill=colour)
    draw.line([0, 0, 0, 15], fill=ROPE)
    draw.line([15, 0, 15, 15], fill=ROPE)
    return image


# ---- the jetty: pictures that stand on diamonds of 32 x 16 px, the diamond in their lowest 16 rows

CUT = (32, 48)
TOP = CUT[1] - 16   # the row of the diamond's top corner


def standing():
    image = Image.new("RGBA", CUT, (0, 0, 0, 0))
    return image, ImageDraw.Draw(image)


def in_diamond(x, y):
    """Of a px, from the corner of the diamond's box: diamonds beside each other leave no px out and share none."""
    row = y if y < 8 else 15 - y
    return 15 - 2 * row <= x <= 16 + 2 * row


def diamond(image, colour_at, raised=0):
    """Calls colour_at with how far along the diamond's columns and rows each of its px lies, 0 to 16."""
    for y in range(16):
        for x in range(32):
            if in_diamond(x, y):
                along_columns, along_rows = (x - 16) / 2 + y, y - (x - 16) / 2
                image.putpixel((x, y + TOP - raised), colour_at(along_columns, along_rows) + (255,))


def block(image, half, height, top, left, right):
    """A box on the middle of the diamond: `half` as wide as its diamond, so high; colours of its three faces."""
    draw = ImageDraw.Draw(image)
    x, y = 16, TOP + 8
    w, h = half, half // 2
    draw.polygon([(x - w, y - height), (x, y + h - height), (x, y + h), (x - w, y)], fill=left)
    draw.polygon([(x, y + h - height), (x + w - 1, y - height), (x + w - 1, y), (x, y + h)], fill=right)
    draw.polygon([(x - w, y - height), (x, y - h - height), (x + w - 1, y - height), (x, y + h - height)], fill=top)


def sea(chance):
    image, _ = standing()
    diamond(image, lambda c, r: BRINE)
    for _ in range(22):
        x, y = chance.randrange(32), chance.randrange(16)
        if in_diamond(x, y):
            image.putpixel((x, y + TOP), BRINE_DARK + (255,))
    for x, y in ((9, 6), (18, 11)):
        for i in range(5):
            image.putpixel((x + i, y + TOP), BRINE_LIGHT + (255,))
    return image


def deck():
    image, _ = standing()
    diamond(image, lambda c, r: WOOD_DARK if int(c) % 4 == 3 else WOOD_LIGHT if int(c) % 4 == 0 else WOOD)
    return image


def quay(chance, with_mat=False):
    image, _ = standing()
    diamond(image, lambda c, r: STONE_DARK if int(c) == 15 or int(r) == 15 else STONE)
    for _ in range(16):
        x, y = chance.randrange(32), chance.randrange(16)
        if in_diamond(x, y):
            image.putpixel((x, y + TOP), STONE_LIGHT + (255,))
    if with_mat:
        ImageDraw.Draw(image).polygon([(16, TOP + 3), (26, TOP + 8), (16, TOP + 13), (6, TOP + 8)], fill=RUST, outline=ROPE)
    return image


def bollard():
    image, draw = standing()
    draw.rectangle([12, TOP - 6, 19, TOP + 8], fill=RUST)
    draw.ellipse([12, TOP + 6, 19, TOP + 10], fill=RUST)
    draw.line([18, TOP - 5, 18, TOP + 8], fill=(110, 54, 36))
    draw.ellipse([10, TOP - 10, 21, TOP - 4], fill=(196, 110, 74), outline=(110, 54, 36))
    draw.rectangle([12, TOP + 1, 19, TOP + 3], fill=ROPE)
    return image


def cargo(boxes):
    image, draw = standing()
    for i in range(boxes):
        one, _ = standing()
        block(one, 12, 13, WOOD_LIGHT, WOOD, WOOD_DARK)
        pen = ImageDraw.Draw(one)
        pen.line([4, TOP - 4, 16, TOP + 2, 27, TOP - 4], fill=WOOD_DARK)
        pen.line([5, TOP + 1, 15, TOP + 12], fill=WOOD_DARK)
        image.alpha_composite(one.crop((0, i * 13, 32, CUT[1])), (0, 0))
    return image


def hut():
    image, draw = standing()
    block(image, 16, 30, WALL_TOP, WALL, (78, 82, 100))
    for x, y in ((4, -13), (9, -10)):
        draw.line([x, TOP + y, x, TOP + y + 5], fill=LAMP)
    return image


def mast():
    image, draw = standing()
    draw.rectangle([15, 6, 16, TOP + 8], fill=WOOD_DARK)
    draw.ellipse([12, TOP + 6, 19, TOP + 10], fill=WOOD_DARK)
    draw.line([9, 9, 22, 9], fill=WOOD_DARK)
    draw.ellipse([11, 1, 20, 10], fill=LAMP, outline=RUST)
    return image


def sheet(tiles, columns, margin, gap, cell=(CELL, CELL)):
    rows = (len(tiles) + columns - 1) // columns
    size = [2 * m + n * c + (n - 1) * g for m, n, g, c in zip(margin, (columns, rows), gap, cell)]
    image = Image.new("RGBA", size, (0, 0, 0, 0))
    for i, one in enumerate(tiles):
        image.paste(one, (margin[0] + i % columns * (cell[0] + gap[0]), margin[1] + i // columns * (cell[1] + gap[1])))
    return image


def warden(side):
    image = Image.new("RGBA", (16, 16), (0, 0, 0, 0))
    draw = ImageDraw.Draw(image)
    coat, skin, boots = (196, 96, 48), (226, 186, 150), (58, 54, 62)
    if side:
        draw.rectangle([4, 1, 11, 3], fill=LAMP)
        draw.rectangle([5, 4, 11, 6], fill=skin)
        draw.rectangle([3, 7, 12, 12], fill=coat)
        draw.rectangle([4, 13, 6, 15], fill=boots)
        draw.rectangle([9, 13, 11, 15], fill=boots)
    else:
        draw.rectangle([4, 2, 11, 6], fill=LAMP)
        draw.rectangle([3, 7, 12, 13], fill=coat)
        draw.rectangle([6, 7, 9, 8], fill=skin)
        draw.rectangle([4, 14, 11, 15], fill=boots)
    return image


def crab():
    image = Image.new("RGBA", (16, 12), (0, 0, 0, 0))
    draw = ImageDraw.Draw(image)
    shell, dark = (206, 92, 72), (150, 58, 50)
    draw.ellipse([3, 3, 12, 10], fill=shell, outline=dark)
    for x in (1, 13):
        draw.rectangle([x, 2, x + 1, 5], fill=dark)
    for x in (4, 7, 11):
        draw.line([x, 9, x, 11], fill=dark)
    image.putpixel((6, 5), (20, 20, 24, 255))
    image.putpixel((9, 5), (20, 20, 24, 255))
    return image


def lamp():
    image = Image.new("RGBA", (10, 20), (0, 0, 0, 0))
    draw = ImageDraw.Draw(image)
    draw.rectangle([4, 8, 5, 19], fill=WOOD_DARK)
    draw.ellipse([0, 0, 9, 9], fill=LAMP, outline=RUST)
    return image


def main():
    world = Path(sys.argv[1] if len(sys.argv) > 1 else Path(__file__).parent.parent / "demo")
    art = world / "art"
    art.mkdir(parents=True, exist_ok=True)
    chance = random.Random(1862)
    marsh = [soil(chance, True), soil(chance, False), bank(chance), kerb(chance), brine(chance, True), brine(chance, False),
             reeds(chance), net(), steam(chance), crate(), post(), masonry(chance, True), masonry(chance, False)]
    station = [floor(chance), wall(), brine(chance, False), boardwalk(chance), mat(chance), pump(chance), shelf(chance),
               pipe(chance, False), pipe(chance, True), turnstile(chance), stairs(False), stairs(True)]
    jetty = [sea(chance), deck(), quay(chance), quay(chance, True), bollard(), cargo(1), cargo(2), hut(), mast()]
    pictures = {"marsh": sheet(marsh, 8, (1, 1), (1, 1)), "station": sheet(station, 5, (0, 0), (2, 2)),
                "jetty": sheet(jetty, 5, (0, 0), (0, 0), CUT),
                "warden": warden(False), "warden_side": warden(True), "crab": crab(), "lamp": lamp()}
    for name, image in pictures.items():
        image.save(art / f"{name}.png", optimize=True)
        print(f"{name}.png: {image.width} x {image.height} px")


if __name__ == "__main__":
    main()
