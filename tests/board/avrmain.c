/* Plays every STEPth frame of each scene on a simulated 8-bit board and tells the harness (avrboard.c)
 * through two registers: 1 begins a frame, 2 ends it, 3 comes before its bytes, 4 ends all. */
#include <avr/io.h>
#include <avr/pgmspace.h>

#define LIGHT_IN_FLASH PROGMEM
#define LIGHT_WITH_DATA
#include "player.h"

static struct light_player player;

void light_send(const uint8_t *bytes, uint16_t count) {
  for (; count; --count) GPIOR1 = *bytes++;
}
uint32_t light_millis(void) { return 0; }

int main(void) {
  uint8_t scene;
  light_begin(&player, light_data);
  for (scene = 0; scene < light_scenes(&player); ++scene) {
    uint32_t frame;
    light_scene(&player, scene);
    for (frame = 0; frame < FRAMES; frame += STEP) {
      uint8_t is_lit;
      GPIOR0 = 1;
      is_lit = light_frame(&player, frame);
      GPIOR0 = 2;
      if (!is_lit) break;
      GPIOR0 = 3;
      light_send(player.bytes, light_size(&player));
    }
  }
  GPIOR0 = 4;
  for (;;) {
  }
}
