/* Plays light that Chispa wrote for a board: the data are in light.h.
 *
 * Portable C99 without a heap, floating point or a library. Two functions are yours: light_send() and
 * light_millis(). Call light_begin() once, then light_poll() as often as you can.
 *
 * You may use player.h and player.c in anything that you make, with or without this notice.
 */
#ifndef LIGHT_PLAYER_H
#define LIGHT_PLAYER_H

#include "light.h"
#include <stdint.h>

/* Repeats that may stand in each other in the data of frames. */
#define LIGHT_DEPTH 3

/* A stretch of frames that is played again. */
struct light_repeat {
  const uint8_t* from; /* where its first frame is written */
  const uint8_t* then; /* where to go on after it */
  uint16_t frames;     /* of a round */
  uint16_t left;       /* of this round */
  uint16_t rounds;     /* that follow this one */
};

/* A part of a scene that is lit: some pixels for some time. */
struct light_part {
  const uint8_t* body;
  uint32_t first; /* frame that it begins at, and that it is over at */
  uint32_t end;
  uint8_t kind;
  /* Of frames: how many are done, how many stay as they are, and where the next one is written. */
  uint32_t done;
  uint16_t held;
  const uint8_t* next;
  uint8_t depth;
  struct light_repeat repeats[LIGHT_DEPTH];
};

struct light_player {
  const uint8_t* data;
  const uint8_t* thresholds; /* of the strip, or none */
  uint8_t channels;          /* of a value, and which colour each has */
  uint8_t flags;
  uint8_t order[4];
  uint8_t scene;
  uint8_t is_over; /* the scene has come to its end */
  uint8_t active;  /* parts that are lit */
  uint16_t begun;  /* parts of the scene that have begun */
  uint32_t frame;  /* the next one */
  uint32_t since;  /* light_millis() when the scene began */
  uint32_t ms;     /* of the frame that is computed */
  uint16_t cell;   /* of the program that is run, and where its pixels are told */
  uint8_t is_row;
  const uint8_t* map;
  struct light_part parts[LIGHT_PARTS];
  uint8_t bytes[LIGHT_BYTES]; /* the values of the strip, each in its own order of colours */
};

/* Yours: send `count` bytes to the strip, one behind the other; 0 where the frame is over and the strip is to
 * take it. */
void light_send(const uint8_t* bytes, uint16_t count);
/* Yours: milliseconds since the board was switched on; it may start again from 0. */
uint32_t light_millis(void);

/* Gets ready to play `data` (light_data of light.h) from its first scene. */
void light_begin(struct light_player* player, const uint8_t* data);
/* Sends the next frame if it is due. Scenes follow each other as they were written: after their time, or
 * each again until light_next_scene() is called. */
void light_poll(struct light_player* player);
/* Goes on to the next scene, after the last to the first; for a button. */
void light_next_scene(struct light_player* player);

/* For those who keep time themselves: begins scene number `scene` in the dark, and computes frame `frame` of
 * it into `bytes`; frames may be left out, but never go back. Returns 0 if the scene is over. */
void light_scene(struct light_player* player, uint8_t scene);
uint8_t light_frame(struct light_player* player, uint32_t frame);
/* Frames a second that the data are written for, how many scenes there are, and how many bytes a frame has.
 */
uint8_t light_rate(const struct light_player* player);
uint8_t light_scenes(const struct light_player* player);
uint16_t light_size(const struct light_player* player);

#endif
