// The definitions in the schema of packs that follow from no list of keys: areas, and what a pack works out from its
// world (who can pass where, merged ground).

#include "listing_internal.hpp"

namespace dryground::keys {

std::string_view pack_schema_by_hand() {
    return R"({
  "place_px": {"type": "array", "minItems": 2, "maxItems": 2, "items": {"type": "number"}},
  "points_px": {"type": "array", "items": {"$ref": "#/definitions/place_px"}},
  "colour": {"type": "string", "pattern": "^#[0-9a-f]{6}$"},
  "area": {
    "description": "Regions in px: of tiles from the top-left corner of the box around their cell, of kinds, movers and feelers from the position, of objects from the map's (0, 0). Of `placed` in the pack's unit.",
    "type": "array",
    "items": {
      "type": "object",
      "required": ["outline", "holes"],
      "additionalProperties": false,
      "properties": {
        "outline": {"type": "array", "items": {"$ref": "#/definitions/place_px"}, "minItems": 3},
        "holes": {
          "type": "array",
          "items": {"type": "array", "items": {"$ref": "#/definitions/place_px"}, "minItems": 3}
        }
      }
    }
  },
  "placed": {
    "description": "An object in the pack's unit, with y as `y` says, on its plane: as merged ground is.",
    "type": "object",
    "required": ["at", "middle", "size", "area", "line", "drawn_from"],
    "additionalProperties": false,
    "properties": {
      "at": {"description": "Its position.", "$ref": "#/definitions/place_px"},
      "middle": {"description": "As middle_px.", "$ref": "#/definitions/place_px"},
      "size": {
        "description": "As size_px; null for an isometric map laid flat on the ground, where its box is not a rectangle.",
        "oneOf": [{"type": "null"}, {"$ref": "#/definitions/place_px"}]
      },
      "area": {
        "description": "Turned. The solid is on the left by the numbers as written.",
        "allOf": [{"$ref": "#/definitions/area"}]
      },
      "line": {"description": "From end to end; empty for an area.", "$ref": "#/definitions/points_px"},
      "drawn_from": {
        "description": "Where the top-left corner of its picture is drawn; null without a picture, or on the ground laid flat of an isometric map.",
        "oneOf": [{"type": "null"}, {"$ref": "#/definitions/place_px"}]
      }
    }
  },
  "props": {"type": "object"},
  "contacts": {
    "description": "What meets what: two shapes do when each one's category is in the other's mask.",
    "type": "object",
    "required": ["bits", "barriers", "movers", "triggers"],
    "additionalProperties": false,
    "properties": {
      "bits": {"description": "How many are used, from the lowest.", "type": "integer"},
      "barriers": {"type": "object", "additionalProperties": {"$ref": "#/definitions/contact"}},
      "movers": {"type": "object", "additionalProperties": {"$ref": "#/definitions/contact"}},
      "triggers": {"$ref": "#/definitions/contact"}
    }
  },
  "contact": {
    "type": "object",
    "required": ["category", "mask"],
    "additionalProperties": false,
    "properties": {"category": {"type": "integer", "minimum": 0}, "mask": {"type": "integer", "minimum": 0}}
  },
  "bits": {
    "description": "How to read the numbers of `passability`.",
    "type": "object",
    "required": ["flags", "sides", "passages"],
    "additionalProperties": false,
    "properties": {
      "flags": {
        "type": "object",
        "additionalProperties": {"description": "Its bit.", "$ref": "#/definitions/flag_bits"}
      },
      "sides": {
        "description": "A cell's sides are the sum of each side's passage times this.",
        "type": "object",
        "required": ["top", "right", "bottom", "left"],
        "additionalProperties": false,
        "properties": {
          "top": {"const": 1},
          "right": {"const": 4},
          "bottom": {"const": 16},
          "left": {"const": 64}
        }
      },
      "passages": {
        "type": "object",
        "required": ["open", "shut", "in", "out"],
        "additionalProperties": false,
        "properties": {"open": {"const": 0}, "shut": {"const": 1}, "in": {"const": 2}, "out": {"const": 3}}
      }
    }
  },
  "flag_bits": {
    "description": "A number of up to 53 bits; in worlds of more than 53 flags hexadecimal text, as in 0x1f.",
    "oneOf": [{"type": "integer", "minimum": 0}, {"type": "string", "pattern": "^0x[0-9a-f]+$"}]
  },
  "passability": {
    "description": "By storey: for each cell its flags and its sides, as `bits` says.",
    "type": "array",
    "items": {
      "type": "object",
      "required": ["storey", "flags", "sides"],
      "additionalProperties": false,
      "properties": {
        "storey": {"type": "string"},
        "flags": {
          "description": "A row of the map each, of sets of flags: decimal, and hexadecimal in worlds of more than 53 flags.",
          "type": "array",
          "items": {"$ref": "#/definitions/row"}
        },
        "sides": {"type": "array", "items": {"$ref": "#/definitions/row"}}
      }
    }
  },
  "row": {
    "description": "A row of cells, from the left: numbers with a space between them. A number that is repeated is followed by * and how often it stands there: \"0*3 7 2*2\" is 0 0 0 7 2 2.",
    "type": "string",
    "pattern": "^(([0-9]+|0x[0-9a-f]+)(\\*[0-9]+)?( |$))+$"
  },
  "merge": {
    "description": "The groups of barriers and triggers and of every mover, sorted by storey, barrier, trigger, mover, one-way: of the whole map, or chunk by chunk.",
    "oneOf": [
      {
        "type": "object",
        "required": ["groups", "surfaces", "stats"],
        "additionalProperties": false,
        "properties": {
          "groups": {"type": "array", "items": {"$ref": "merge.schema.json#/definitions/group"}},
          "surfaces": {
            "type": "array",
            "items": {"$ref": "merge.schema.json#/definitions/surface"},
            "minItems": 1
          },
          "stats": {"$ref": "merge.schema.json#/definitions/stats"}
        }
      },
      {
        "type": "object",
        "required": ["chunk_cells", "chunks", "surfaces", "stats"],
        "additionalProperties": false,
        "properties": {
          "chunk_cells": {"type": "integer", "minimum": 1},
          "chunks": {
            "type": "array",
            "items": {
              "type": "object",
              "required": ["chunk", "groups"],
              "additionalProperties": false,
              "properties": {
                "chunk": {
                  "description": "Column and row of chunks, counted from cell (0, 0).",
                  "type": "array",
                  "minItems": 2,
                  "maxItems": 2,
                  "items": {"type": "integer"}
                },
                "groups": {"type": "array", "items": {"$ref": "merge.schema.json#/definitions/group"}}
              }
            }
          },
          "surfaces": {
            "type": "array",
            "items": {"$ref": "merge.schema.json#/definitions/surface"},
            "minItems": 1
          },
          "stats": {"$ref": "merge.schema.json#/definitions/stats"}
        }
      }
    ]
  },
  "variants": {
    "type": "array",
    "items": {
      "type": "object",
      "required": ["facts", "passability", "merge"],
      "additionalProperties": false,
      "properties": {
        "facts": {
          "description": "Those that hold; of the others that shape the ground none does.",
          "type": "array",
          "minItems": 1,
          "items": {"type": "string"}
        },
        "passability": {"$ref": "#/definitions/passability"},
        "merge": {"$ref": "#/definitions/merge"}
      }
    }
  }
})";
}

}   // namespace dryground::keys
