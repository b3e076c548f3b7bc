/* Plays light that Chispa wrote for a board; see player.h. docs/board-light.md describes the data.
 *
 * Numbers are 16.16 fixed point: 65536 is 1. They wrap around rather than overflow.
 */
#include "player.h"

#ifdef __AVR__
#include <avr/pgmspace.h>
#define IN_FLASH PROGMEM
#define byte_at(at) pgm_read_byte(at)
#else
#define IN_FLASH
#define byte_at(at) (*(at))
#endif

#define ONE 65536L

/* ---- Reading ---- */

static uint16_t word_at(const uint8_t *at) {
#ifdef __AVR__
  return pgm_read_word(at);
#else
  return (uint16_t)(at[0] | at[1] << 8);
#endif
}

static uint32_t three_at(const uint8_t *at) {
  return word_at(at) | (uint32_t)byte_at(at + 2) << 16;
}

static int32_t long_at(const uint8_t *at) {
#ifdef __AVR__
  return (int32_t)pgm_read_dword(at);
#else
  return (int32_t)(word_at(at) | (uint32_t)word_at(at + 2) << 16);
#endif
}

/* ---- The head of the data ---- */

/* 0 version, 1 scenes, 2 frames a second, 3 channels of a pixel, 4-7 which colour each channel has, 8-9
 * pixels, 10 flags, 11-16 the strip's white, 17-19 where the thresholds are, 20 pixels that share a value,
 * 21- where each scene is. */
enum { VERSION = 0, SCENES = 1, RATE = 2, CHANNELS = 3, ORDER = 4, PIXELS = 8, FLAGS = 10 };
enum { WHITE = 11, THRESHOLDS = 17, GROUP = 20, SCENE_TABLE = 21 };
enum { HAS_WHITE_CHIP = 1, HAS_WHITE_POINT = 2, HAS_THRESHOLDS = 4 };
/* A scene: 0-2 its frames, 0 for ever; 3-5 frames until the next scene, 0 never; 6-7 parts, then these. */
enum { SCENE_FRAMES = 0, SCENE_STAYS = 3, SCENE_PARTS = 6, SCENE_LIST = 8 };
/* A part: 0-2 first frame, 3-5 the frame it is over at (all bits: never), 6 kind, 7-9 where its body is. */
enum { PART_FIRST = 0, PART_END = 3, PART_KIND = 6, PART_BODY = 7, PART_SIZE = 10 };
enum { KIND_FRAMES = 0, KIND_PROGRAM = 1, KIND_SWEEP = 2 };
#define NEVER 0xffffffUL

uint8_t light_rate(const struct light_player *player) { return byte_at(player->data + RATE); }
uint8_t light_scenes(const struct light_player *player) { return byte_at(player->data + SCENES); }
uint16_t light_size(const struct light_player *player) {
  const uint8_t group = byte_at(player->data + GROUP);
  const uint16_t values = (uint16_t)((word_at(player->data + PIXELS) + group - 1) / group);
  return (uint16_t)(values * byte_at(player->data + CHANNELS));
}

static const uint8_t *scene_of(const struct light_player *player) {
  return player->data + three_at(player->data + SCENE_TABLE + 3 * (uint16_t)player->scene);
}

/* ---- Arithmetic ---- */

static int32_t wrapped(uint32_t x) { return (int32_t)x; }
static uint32_t magnitude(int32_t x) { return x < 0 ? 0 - (uint32_t)x : (uint32_t)x; }

static uint32_t times16(uint16_t a, uint16_t b) { return (uint32_t)a * b; }

/* a * b, rounded towards 0. */
static int32_t multiply(int32_t a, int32_t b) {
  uint32_t x, y, product;
  uint16_t xh, xl, yh, yl;
  if (((uint32_t)a | (uint32_t)b) < ONE) return (int32_t)(times16((uint16_t)a, (uint16_t)b) >> 16);
  if (a == ONE) return b;
  if (b == ONE) return a;
  x = magnitude(a);
  y = magnitude(b);
  xh = (uint16_t)(x >> 16);
  xl = (uint16_t)x;
  yh = (uint16_t)(y >> 16);
  yl = (uint16_t)y;
  product = times16(xl, yl) >> 16;
  if (xh) product += times16(xh, yl);
  if (yh) product += times16(xl, yh);
  if (xh && yh) product += times16(xh, yh) << 16;
  return (a < 0) != (b < 0) ? wrapped(0 - product) : wrapped(product);
}

/* a / b; 0 if b is. */
static int32_t divide(int32_t a, int32_t b) {
  uint32_t x = magnitude(a), y = magnitude(b), whole, rest;
  uint8_t bit;
  if (y == 0) return 0;
  whole = x / y;
  rest = x % y;
  for (bit = 0; bit < 16; ++bit) {
    whole <<= 1;
    /* y is at most 2^31, so that twice the rest fits. */
    rest <<= 1;
    if (rest >= y) {
      rest -= y;
      whole |= 1;
    }
  }
  return (a < 0) != (b < 0) ? wrapped(0 - whole) : wrapped(whole);
}

static int32_t floor_of(int32_t x) { return wrapped((uint32_t)x & 0xffff0000UL); }
static int32_t fraction_of(int32_t x) { return (int32_t)((uint32_t)x & 0xffffUL); }

/* a - b * floor(a / b). */
static int32_t modulo(int32_t a, int32_t b) {
  int32_t rest;
  if (b == 0) return 0;
  if (a == INT32_MIN && b == -1) return 0;
  rest = a % b;
  return rest != 0 && (rest < 0) != (b < 0) ? wrapped((uint32_t)rest + (uint32_t)b) : rest;
}

/* Square root, bit by bit (K. Turkowski, Fixed-point square root, 1994). */
static int32_t root_of(int32_t x) {
  uint32_t root = 0, high = 0, low = (uint32_t)x, test;
  uint8_t step;
  if (x <= 0) return 0;
  for (step = 0; step < 24; ++step) {
    high = high << 2 | low >> 30;
    low <<= 2;
    root <<= 1;
    test = (root << 1) + 1;
    if (high >= test) {
      high -= test;
      ++root;
    }
  }
  return (int32_t)root;
}

/* A quarter of a sine in 64 steps, 65535 is 1. */
static const uint16_t sines[65] IN_FLASH = {
    0,     1608,  3216,  4821,  6424,  8022,  9616,  11204, 12785, 14359, 15924, 17479, 19024,
    20557, 22078, 23586, 25079, 26557, 28020, 29465, 30893, 32302, 33692, 35061, 36409, 37736,
    39039, 40319, 41575, 42806, 44011, 45189, 46340, 47464, 48558, 49624, 50659, 51664, 52638,
    53580, 54490, 55367, 56211, 57021, 57797, 58537, 59243, 59913, 60546, 61144, 61704, 62227,
    62713, 63161, 63571, 63943, 64276, 64570, 64826, 65042, 65219, 65357, 65456, 65515, 65535};
/* 2 to the power of 0 to 1 in 32 steps, less 1; and the logarithm to base 2 of 1 to 2. */
static const uint16_t powers[33] IN_FLASH = {
    0,     1435,  2902,  4400,  5932,  7496,  9096,  10730, 12400, 14106, 15850,
    17632, 19454, 21315, 23216, 25160, 27146, 29175, 31249, 33368, 35533, 37746,
    40006, 42317, 44677, 47090, 49554, 52073, 54647, 57277, 59965, 62711, 65535};
static const uint16_t logarithms[33] IN_FLASH = {
    0,     2909,  5732,  8473,  11136, 13727, 16248, 18704, 21098, 23433, 25711,
    27936, 30109, 32234, 34312, 36346, 38336, 40286, 42196, 44068, 45904, 47705,
    49472, 51207, 52911, 54584, 56229, 57845, 59434, 60997, 62534, 64047, 65535};

/* Between two entries of a table, `share` of 65536 of the way. */
static uint16_t between(uint16_t low, uint16_t high, uint16_t share) {
  return high >= low ? (uint16_t)(low + (times16((uint16_t)(high - low), share) >> 16))
                     : (uint16_t)(low - (times16((uint16_t)(low - high), share) >> 16));
}

static uint16_t table_at(const uint16_t *table, uint8_t entry, uint16_t share) {
  const uint8_t *at = (const uint8_t *)(table + entry);
#ifdef __AVR__
  return between(word_at(at), word_at(at + 2), share);
#else
  (void)at;
  return between(table[entry], table[entry + 1], share);
#endif
}

/* Sine of a place in the first quarter of a turn, 0 to 16384. */
static int32_t quarter(uint16_t place) {
  uint16_t value;
  if (place >= 16384) return ONE;
  value = table_at(sines, (uint8_t)(place >> 8), (uint16_t)(place << 8));
  return (int32_t)((uint32_t)value + (value >> 15));
}

static int32_t cosine_of(int32_t turns) {
  const uint16_t turn = (uint16_t)turns;
  const uint16_t place = turn & 16383;
  switch (turn >> 14) {
    case 0:
      return quarter((uint16_t)(16384 - place));
    case 1:
      return -quarter(place);
    case 2:
      return -quarter((uint16_t)(16384 - place));
    default:
      return quarter(place);
  }
}

static int32_t power_of_2(int32_t x) {
  const uint16_t part = (uint16_t)x;
  const int16_t whole = (int16_t)(x >> 16);
  const uint32_t value = ONE + (uint32_t)table_at(powers, (uint8_t)(part >> 11), (uint16_t)(part << 5));
  if (whole >= 14) return INT32_MAX;
  if (whole >= 0) return (int32_t)(value << whole);
  return whole < -17 ? 0 : (int32_t)(value >> -whole);
}

/* Of what is not above 0, that of the least number. */
static int32_t logarithm_of(int32_t x) {
  uint32_t value = (uint32_t)x;
  int16_t whole = 15;
  uint16_t part;
  if (x <= 0) return -16 * ONE;
  while (!(value & 0x80000000UL)) {
    value <<= 1;
    --whole;
  }
  part = (uint16_t)(value >> 15);
  return (int32_t)(whole * ONE) + table_at(logarithms, (uint8_t)(part >> 11), (uint16_t)(part << 5));
}

/* An S from 0 to 1. */
static int32_t smooth(int32_t x) {
  if (x <= 0) return 0;
  if (x >= ONE) return ONE;
  return multiply(multiply(x, x), 3 * ONE - 2 * x);
}

/* ---- Chance: the same numbers as in Chispa ---- */

static uint32_t mixed(uint32_t x) {
  x = (x ^ x >> 16) * 0x7feb352dUL;
  /* x >> 15, which small machines do bit by bit. */
  x = (x ^ (x >> 16 << 1 | ((uint16_t)x >> 15))) * 0x846ca68bUL;
  return x ^ x >> 16;
}

static uint64_t mixed_long(uint64_t x) {
  x += 0x9e3779b97f4a7c15ULL;
  x = (x ^ x >> 30) * 0xbf58476d1ce4e5b9ULL;
  x = (x ^ x >> 27) * 0x94d049bb133111ebULL;
  return x ^ x >> 31;
}

static int32_t chance(uint32_t seed, int32_t a, int32_t b) {
  const uint64_t inner = mixed_long((uint64_t)(int64_t)b);
  return (int32_t)(mixed_long(seed ^ mixed_long((uint64_t)(int64_t)a ^ inner)) >> 48);
}

static int32_t mix_of(int32_t a, int32_t b, int32_t share) {
  return a + multiply(b - a, share);
}

/* `seed` has been multiplied by 0xc2b2ae35. */
static int32_t noise(uint32_t seed, int32_t x, int32_t y) {
  const uint32_t column = (uint32_t)(x >> 16) * 0x9e3779b1UL;
  const uint32_t row = (uint32_t)((uint32_t)(y >> 16) * 0x85ebca6bUL) + seed;
  const uint32_t next_column = column + 0x9e3779b1UL, next_row = row + 0x85ebca6bUL;
  const int32_t u = smooth(fraction_of(x)), v = smooth(fraction_of(y));
  const int32_t a = (int32_t)(mixed(column ^ row) >> 16), b = (int32_t)(mixed(next_column ^ row) >> 16);
  int32_t c, d;
  if (v == 0) return mix_of(a, b, u);
  c = (int32_t)(mixed(column ^ next_row) >> 16);
  d = (int32_t)(mixed(next_column ^ next_row) >> 16);
  return mix_of(mix_of(a, b, u), mix_of(c, d, u), v);
}

/* ---- Light to bytes ---- */

static int32_t within_one(int32_t x) { return x < 0 ? 0 : x > ONE ? ONE : x; }
/* Light in 16 bits, 65535 being all. */
static uint16_t within_word(int32_t x) { return x < 0 ? 0 : x > 65535 ? 65535 : (uint16_t)x; }

/* The value of a channel: how many of the 255 thresholds the light has reached. */
static uint8_t value_of(const uint8_t *thresholds, uint16_t light) {
  uint8_t value = 0, bit;
  if (!thresholds) return (uint8_t)((times16(light, 255) + ONE / 2) >> 16);
  for (bit = 128; bit; bit >>= 1)
    if (light >= word_at(thresholds + 2 * (uint16_t)(value + bit - 1))) value = (uint8_t)(value + bit);
  return value;
}

/* Writes the value `number` of the strip. */
static void put_value(struct light_player *player, uint16_t number, const uint8_t *channels_of_it) {
  uint8_t left = player->channels;
  uint8_t *to = player->bytes + (uint16_t)(number * left);
  for (; left; --left) *to++ = *channels_of_it++;
}

/* Writes all values of the present cell. */
static void put_cell(struct light_player *player, const uint8_t *channels_of_it) {
  const uint8_t *at = player->map;
  uint8_t count;
  if (player->is_row) {
    /* The first pixel, and how far it is from one to the next. */
    put_value(player, (uint16_t)(word_at(at) + word_at(at + 2) * player->cell), channels_of_it);
    return;
  }
  for (count = byte_at(at), ++at; count; --count, at += 2) put_value(player, word_at(at), channels_of_it);
}

static const uint8_t dark[4] = {0, 0, 0, 0};

/* Writes the values of the cell from its linear light. */
static void put_light(struct light_player *player, int32_t red, int32_t green, int32_t blue) {
  const uint8_t flags = player->flags;
  uint16_t chips[4];
  uint8_t values[4], i;
  chips[0] = within_word(red);
  chips[1] = within_word(green);
  chips[2] = within_word(blue);
  if (flags & HAS_WHITE_CHIP) {
    chips[3] = chips[0] < chips[1] ? chips[0] : chips[1];
    if (chips[2] < chips[3]) chips[3] = chips[2];
    for (i = 0; i < 3; ++i) chips[i] = (uint16_t)(chips[i] - chips[3]);
  }
  if (flags & HAS_WHITE_POINT)
    for (i = 0; i < 3; ++i)
      chips[i] = (uint16_t)(times16(chips[i], word_at(player->data + WHITE + 2 * i)) >> 16);
  for (i = 0; i < player->channels; ++i) values[i] = value_of(player->thresholds, chips[player->order[i]]);
  put_cell(player, values);
}

/* Looks `place` up in a palette: flags (1: it goes round, 2: of words, not bytes), segments, then three
 * channels for each end of one. */
static void look_up(const uint8_t *palette, int32_t place, int32_t *to) {
  const uint8_t flags = byte_at(palette);
  uint32_t step;
  const uint8_t *entry;
  uint16_t share, low, high;
  uint8_t i;
  place = flags & 1 ? fraction_of(place) : within_one(place);
  step = (uint32_t)place * word_at(palette + 1);
  share = (uint16_t)step;
  entry = palette + 3 + (flags & 2 ? 6 : 3) * (uint16_t)(step >> 16);
  for (i = 0; i < 3; ++i) {
    if (flags & 2) {
      low = word_at(entry);
      high = share ? word_at(entry + 6) : low;
      entry += 2;
    } else {
      low = (uint16_t)(byte_at(entry) * 257);
      high = share ? (uint16_t)(byte_at(entry + 3) * 257) : low;
      ++entry;
    }
    to[i] = (int32_t)between(low, high, share);
  }
}

/* ---- Programs ---- */

/* Each step: what is done, the register of its result, the registers of its operands. */
enum {
  END, ADD, SUBTRACT, MULTIPLY, DIVIDE, MODULO, MIN, MAX, BELOW, AT_MOST, EQUAL, AND, OR, CHOOSE, NOISE,
  CHANCE, XOR_WORD, TIMES_WORD, OUT,
  /* From here on with one operand. */
  NOT, NEGATE, ABS, SIGN, FLOOR, FRACTION, ROOT, POWER_OF_2, LOGARITHM, COSINE, CLAMP, SMOOTH, WORD, MIX_WORD,
  SHIFT_WORD, UNIT, PALETTE, DARK_IF,
  /* From here on with numbers of 32 bits in place of operands. */
  CONSTANT, RAMP
};

static int32_t truth(uint8_t is) { return is ? ONE : 0; }

/* `base` and so much a millisecond, in 2^-32. */
static int32_t ramp(int32_t base, int32_t rate, uint32_t ms) {
  const uint64_t moved = (uint64_t)((int64_t)rate * (int64_t)ms);
  return wrapped((uint32_t)base + (uint32_t)(moved >> 16));
}

/* What a frame is computed in. Steps name registers by how many bytes they are from the first one. */
#ifndef LIGHT_SCRATCH
#define LIGHT_SCRATCH static
#endif
LIGHT_SCRATCH int32_t registers[LIGHT_REGISTERS];
#define REGISTER(at) (*(int32_t *)((uint8_t *)registers + (at)))

static const uint8_t *run(struct light_player *player, const uint8_t *code) {
  int32_t a, b = 0;
#define NEXT() byte_at(code++)
  for (;;) {
    const uint8_t step = NEXT();
    uint8_t to;
    if (step == END) return code;
    to = NEXT();
    if (step >= CONSTANT) {
      a = long_at(code);
      code += 4;
      if (step == RAMP) {
        a = ramp(a, long_at(code), player->ms);
        code += 4;
      }
      REGISTER(to) = a;
      continue;
    }
    a = REGISTER(NEXT());
    if (step < NOT) b = REGISTER(NEXT());
    switch (step) {
      case ADD: a = wrapped((uint32_t)a + (uint32_t)b); break;
      case SUBTRACT: a = wrapped((uint32_t)a - (uint32_t)b); break;
      case MULTIPLY: a = multiply(a, b); break;
      case DIVIDE: a = divide(a, b); break;
      case MODULO: a = modulo(a, b); break;
      case MIN: if (b < a) a = b; break;
      case MAX: if (b > a) a = b; break;
      case BELOW: a = truth(a < b); break;
      case AT_MOST: a = truth(a <= b); break;
      case EQUAL: a = truth(a == b); break;
      case AND: a = truth(a != 0 && b != 0); break;
      case OR: a = truth(a != 0 || b != 0); break;
      case CHOOSE: {
        const uint8_t otherwise = NEXT();
        a = a != 0 ? b : REGISTER(otherwise);
        break;
      }
      case NOISE: a = noise((uint32_t)REGISTER(NEXT()), a, b); break;
      case CHANCE: a = chance((uint32_t)REGISTER(NEXT()), a, b); break;
      case XOR_WORD: a = wrapped((uint32_t)a ^ (uint32_t)b); break;
      case TIMES_WORD: a = wrapped((uint32_t)a * (uint32_t)b); break;
      case OUT: put_light(player, REGISTER(to), a, b); continue;
      case NOT: a = truth(a == 0); break;
      case NEGATE: a = wrapped(0 - (uint32_t)a); break;
      case ABS: a = wrapped(magnitude(a)); break;
      case SIGN: a = a > 0 ? ONE : a < 0 ? -ONE : 0; break;
      case FLOOR: a = floor_of(a); break;
      case FRACTION: a = fraction_of(a); break;
      case ROOT: a = root_of(a); break;
      case POWER_OF_2: a = power_of_2(a); break;
      case LOGARITHM: a = logarithm_of(a); break;
      case COSINE: a = cosine_of(a); break;
      case CLAMP: a = within_one(a); break;
      case SMOOTH: a = smooth(a); break;
      case WORD: a = a >> 16; break;
      case MIX_WORD: a = wrapped(mixed((uint32_t)a)); break;
      case SHIFT_WORD: a = wrapped((uint32_t)a << NEXT()); break;
      case UNIT: a = (int32_t)((uint32_t)a >> 16); break;
      case PALETTE:
        look_up(player->data + three_at(code), a, &REGISTER(to));
        code += 3;
        continue;
      case DARK_IF:
        if (a > 0) continue;
        put_cell(player, dark);
        return code;
      default: return code;
    }
    REGISTER(to) = a;
  }
}

/* A program's inputs, each: its register, kind, and a row's first value and step in 2^-24, or how far the
 * words of a table are to be shifted, and where it is; or where a table of whole numbers of 32 bits is. */
enum { INPUT_ROW = 0, INPUT_TABLE = 1, INPUT_LONG = 2, MAP_LIST = 0, MAP_ROW = 1 };

static const uint8_t *set_inputs(struct light_player *player, const uint8_t *at, uint8_t count) {
  const uint16_t cell = player->cell;
  for (; count; --count) {
    int32_t *const to = &REGISTER(byte_at(at));
    if (byte_at(at + 1) == INPUT_ROW) {
      *to = wrapped((uint32_t)long_at(at + 2) + (uint32_t)long_at(at + 6) * cell) >> 8;
      at += 10;
    } else if (byte_at(at + 1) == INPUT_TABLE) {
      const uint16_t value = word_at(player->data + three_at(at + 3) + 2 * (uint32_t)cell);
      *to = wrapped((uint32_t)(int32_t)(int16_t)value << byte_at(at + 2));
      at += 6;
    } else {
      *to = long_at(player->data + three_at(at + 3) + 4 * (uint32_t)cell);
      at += 6;
    }
  }
  return at;
}

/* Body of a program: its constants; how long what is the same for all cells is, and that; how many cells, and
 * where it is said which values each has. Then of a program: inputs, and what is done for each cell. Of a
 * sweep: the register of the first cell's place in a palette, how much more each next one has in 2^-24, the
 * register of the level, the palette. Runs the first half; returns where the second one is. */
static const uint8_t *begin_program(struct light_player *player, const uint8_t *at, uint16_t *cells) {
  uint8_t constants = byte_at(at++), i;
  for (i = 0; i < constants; ++i, at += 4) registers[i] = long_at(at);
  at = run(player, at + 2);
  *cells = word_at(at);
  player->map = player->data + three_at(at + 2);
  player->is_row = byte_at(player->map++) == MAP_ROW;
  return at + 5;
}

static void next_cell(struct light_player *player) {
  if (!player->is_row) player->map += 1 + 2 * (uint16_t)byte_at(player->map);
  ++player->cell;
}

static void play_program(struct light_player *player, const uint8_t *at) {
  uint16_t cells;
  uint8_t inputs;
  at = begin_program(player, at, &cells);
  inputs = byte_at(at);
  for (player->cell = 0; player->cell < cells; next_cell(player))
    run(player, set_inputs(player, at + 1, inputs));
}

static void play_sweep(struct light_player *player, const uint8_t *at) {
  uint16_t cells;
  uint8_t i;
  uint32_t place, each;
  int32_t level, light[3];
  const uint8_t *palette;
  at = begin_program(player, at, &cells);
  place = ((uint32_t)REGISTER(byte_at(at)) << 8) + 128;
  each = (uint32_t)long_at(at + 1);
  level = REGISTER(byte_at(at + 5));
  palette = player->data + three_at(at + 6);
  for (player->cell = 0; player->cell < cells; next_cell(player), place += each) {
    look_up(palette, (int32_t)(place >> 8 & 0xffff), light);
    for (i = 0; level != ONE && i < 3; ++i) light[i] = multiply(light[i], level);
    put_light(player, light[0], light[1], light[2]);
  }
}

/* Makes the pixels of a program dark. */
static void clear_program(struct light_player *player, const uint8_t *at) {
  uint16_t cells;
  at += 1 + 4 * (uint16_t)byte_at(at);
  at += 2 + word_at(at);
  cells = word_at(at);
  player->map = player->data + three_at(at + 2);
  player->is_row = byte_at(player->map++) == MAP_ROW;
  for (player->cell = 0; player->cell < cells; next_cell(player)) put_cell(player, dark);
}

/* ---- Frames ---- */

/* Body of frames: how many runs of pixels, then the first and the count of each; colours, 0 if each is
 * written where it stands; these; then the frames. A frame is steps up to END_OF_FRAME: two bits say what,
 * six how many, 62 being 62 and the next byte. In place of a frame can stand: it stays so; some are played
 * again. */
enum { END_OF_FRAME = 0, SKIP = 0, SAME = 1, EACH = 2, COPY = 3, INSTEAD = 63, STAYS = 0, AGAIN = 1 };
#define FOR_EVER 0xffff

/* Where in a row of runs a frame has got to. */
struct place {
  const uint8_t *run; /* the next */
  uint16_t pixel;
  uint16_t left; /* of this run */
};

static void step_on(struct place *place) {
  ++place->pixel;
  if (--place->left == 0) {
    place->pixel = word_at(place->run);
    place->left = word_at(place->run + 2);
    place->run += 4;
  }
}

/* Applies the frame that is written at `at`; returns where the next one is. */
static const uint8_t *draw_frame(struct light_player *player, const uint8_t *body, const uint8_t *at) {
  const uint8_t channels = player->channels;
  const uint8_t *colours = body + 2 + 4 * word_at(body);
  const uint16_t count_of_colours = word_at(colours);
  struct place place;
  uint8_t value[4], i;
  colours += 2;
  place.run = body + 6;
  place.pixel = word_at(body + 2);
  place.left = word_at(body + 4);
  for (;;) {
    const uint8_t step = byte_at(at++);
    const uint8_t kind = step >> 6;
    uint16_t count = step & 63, read = 0;
    uint8_t back = 0;
    if (step == END_OF_FRAME) return at;
    if (count == 62) count = (uint16_t)(62 + byte_at(at++));
    if (kind == COPY) back = byte_at(at++);
    /* How many colours are written here. */
    read = kind == EACH ? count : kind == SAME ? 1 : 0;
    for (; count; --count) {
      if (read) {
        const uint8_t *from = count_of_colours ? colours + (uint16_t)byte_at(at) * channels : at;
        for (i = 0; i < channels; ++i) value[i] = byte_at(from + i);
        at += count_of_colours ? 1 : channels;
        --read;
      }
      if (kind == COPY) {
        const uint8_t *from = player->bytes + (uint16_t)((place.pixel - back) * channels);
        for (i = 0; i < channels; ++i) value[i] = from[i];
      }
      if (kind != SKIP) put_value(player, place.pixel, value);
      step_on(&place);
    }
  }
}

/* One frame has passed: leaves the repeats that are done with, from the outermost. */
static void count_frame(struct light_part *part) {
  uint8_t i;
  for (i = 0; i < part->depth; ++i) --part->repeats[i].left;
  for (i = 0; i < part->depth; ++i) {
    struct light_repeat *repeat = &part->repeats[i];
    if (repeat->left) continue;
    part->held = 0;
    if (repeat->rounds) {
      if (repeat->rounds != FOR_EVER) --repeat->rounds;
      repeat->left = repeat->frames;
      part->next = repeat->from;
      part->depth = (uint8_t)(i + 1);
    } else {
      part->next = repeat->then;
      part->depth = i;
    }
    return;
  }
}

static void next_frame(struct light_player *player, struct light_part *part) {
  if (part->held) {
    --part->held;
  } else {
    while (byte_at(part->next) == INSTEAD && byte_at(part->next + 1) == AGAIN) {
      struct light_repeat *repeat = &part->repeats[part->depth++];
      repeat->from = player->data + three_at(part->next + 2);
      repeat->frames = repeat->left = word_at(part->next + 5);
      repeat->rounds = (uint16_t)(word_at(part->next + 7) - 1);
      repeat->then = part->next + 9;
      part->next = repeat->from;
    }
    if (byte_at(part->next) == INSTEAD) {
      part->held = (uint16_t)(word_at(part->next + 2) - 1);
      part->next += 4;
    } else {
      part->next = draw_frame(player, part->body, part->next);
    }
  }
  ++part->done;
  count_frame(part);
}

static void clear_frames(struct light_player *player, const uint8_t *body) {
  const uint8_t channels = player->channels;
  uint16_t runs = word_at(body);
  for (body += 2; runs; --runs, body += 4) {
    uint8_t *to = player->bytes + (uint16_t)(word_at(body) * channels);
    uint16_t left = (uint16_t)(word_at(body + 2) * channels);
    while (left--) *to++ = 0;
  }
}

/* ---- Scenes ---- */

static void clear_part(struct light_player *player, const struct light_part *part) {
  if (part->kind == KIND_FRAMES)
    clear_frames(player, part->body);
  else
    clear_program(player, part->body);
}

static void end_parts(struct light_player *player, uint32_t frame) {
  uint8_t i = 0;
  while (i < player->active) {
    if (player->parts[i].end > frame) {
      ++i;
      continue;
    }
    clear_part(player, &player->parts[i]);
    player->parts[i] = player->parts[--player->active];
  }
}

static void begin_parts(struct light_player *player, uint32_t frame) {
  const uint8_t *scene = scene_of(player);
  const uint16_t parts = word_at(scene + SCENE_PARTS);
  for (; player->begun < parts; ++player->begun) {
    const uint8_t *at = scene + SCENE_LIST + PART_SIZE * player->begun;
    const uint32_t end = three_at(at + PART_END);
    struct light_part *part = &player->parts[player->active];
    if (three_at(at + PART_FIRST) > frame) return;
    if (end <= frame) continue;
    if (player->active == LIGHT_PARTS) return;
    part->first = three_at(at + PART_FIRST);
    part->end = end == NEVER ? UINT32_MAX : end;
    part->kind = byte_at(at + PART_KIND);
    part->body = player->data + three_at(at + PART_BODY);
    part->done = 0;
    part->held = 0;
    part->depth = 0;
    if (part->kind == KIND_FRAMES) {
      const uint8_t *colours = part->body + 2 + 4 * word_at(part->body);
      part->next = colours + 2 + word_at(colours) * (uint16_t)byte_at(player->data + CHANNELS);
    }
    ++player->active;
  }
}

void light_scene(struct light_player *player, uint8_t scene) {
  uint8_t *to = player->bytes;
  uint16_t left = light_size(player);
  uint8_t i;
  while (left--) *to++ = 0;
  player->channels = byte_at(player->data + CHANNELS);
  player->flags = byte_at(player->data + FLAGS);
  for (i = 0; i < 4; ++i) player->order[i] = byte_at(player->data + ORDER + i);
  player->thresholds = 0;
  if (player->flags & HAS_THRESHOLDS) player->thresholds = player->data + three_at(player->data + THRESHOLDS);
  player->scene = scene;
  player->is_over = 0;
  player->active = 0;
  player->begun = 0;
  player->frame = 0;
}

uint8_t light_frame(struct light_player *player, uint32_t frame) {
  const uint32_t frames = three_at(scene_of(player) + SCENE_FRAMES);
  const uint8_t rate = light_rate(player);
  uint8_t i;
  player->is_over = frames && frame >= frames;
  if (player->is_over) return 0;
  player->ms = frame / rate * 1000 + frame % rate * 1000 / rate;
  player->frame = frame + 1;
  end_parts(player, frame);
  begin_parts(player, frame);
  for (i = 0; i < player->active; ++i) {
    struct light_part *part = &player->parts[i];
    if (part->kind == KIND_PROGRAM)
      play_program(player, part->body);
    else if (part->kind == KIND_SWEEP)
      play_sweep(player, part->body);
    else
      while (part->done <= frame - part->first) next_frame(player, part);
  }
  return 1;
}

#ifndef LIGHT_WITHOUT_CLOCK

void light_begin(struct light_player *player, const uint8_t *data) {
  player->data = data;
  player->since = light_millis();
  light_scene(player, 0);
}

static void change_scene(struct light_player *player, uint8_t scene) {
  player->since = light_millis();
  light_scene(player, scene);
}

void light_next_scene(struct light_player *player) {
  const uint8_t next = (uint8_t)(player->scene + 1);
  change_scene(player, next < light_scenes(player) ? next : 0);
}

/* Each value as often as there are pixels that share it. */
static void send_frame(struct light_player *player) {
  const uint8_t channels = byte_at(player->data + CHANNELS), group = byte_at(player->data + GROUP);
  const uint8_t *value = player->bytes;
  uint16_t pixels = word_at(player->data + PIXELS);
  uint8_t i;
  if (group == 1) {
    light_send(value, light_size(player));
  } else {
    for (; pixels; value += channels)
      for (i = 0; i < group && pixels; ++i, --pixels) light_send(value, channels);
  }
  light_send(value, 0);
}

void light_poll(struct light_player *player) {
  const uint8_t rate = light_rate(player);
  const uint32_t passed = light_millis() - player->since;
  const uint32_t stays = three_at(scene_of(player) + SCENE_STAYS);
  /* The latest frame that is due; those that the board was too slow for are left out. */
  const uint32_t due = passed / 1000 * rate + passed % 1000 * rate / 1000;
  if (due < player->frame) return;
  if (stays && due >= stays) {
    light_next_scene(player);
    return;
  }
  if (light_frame(player, due))
    send_frame(player);
  else
    change_scene(player, player->scene);
}

#endif
