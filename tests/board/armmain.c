/* Plays every STEPth frame of each scene on a simulated 32-bit board (Cortex-M3) and prints, a line a frame,
 * the instructions that it took, counted by the system timer, and its bytes; by semihosting. */
#include <stdint.h>

#define LIGHT_WITH_DATA
#include "player.h"

#define REGISTER(address) (*(volatile uint32_t *)(address))

extern uint32_t stack_top;
extern uint32_t bss_begin, bss_end, data_begin, data_end, data_load;

static struct light_player player;

void light_send(const uint8_t *bytes, uint16_t count) {
  (void)bytes;
  (void)count;
}
uint32_t light_millis(void) { return 0; }

static void host(int what, const void *with) {
  register int r0 __asm__("r0") = what;
  register const void *r1 __asm__("r1") = with;
  __asm__ volatile("bkpt 0xab" : "+r"(r0) : "r"(r1) : "memory");
}

static char line[8192];

static char *put_number(char *to, uint32_t number) {
  char digits[12];
  int n = 0;
  do digits[n++] = (char)('0' + number % 10);
  while (number /= 10);
  while (n) *to++ = digits[--n];
  return to;
}

static void put_line(uint32_t taken) {
  static const char hex[] = "0123456789abcdef";
  char *to = put_number(line, taken);
  uint16_t i;
  *to++ = ' ';
  for (i = 0; i < light_size(&player); ++i) {
    *to++ = hex[player.bytes[i] >> 4];
    *to++ = hex[player.bytes[i] & 15];
  }
  *to++ = '\n';
  *to = 0;
  host(4, line);
}

int main(void) {
  uint8_t scene;
  /* The timer counts down from the core's clock. */
  REGISTER(0xe000e014) = 0xffffff;
  REGISTER(0xe000e018) = 0;
  REGISTER(0xe000e010) = 5;
  light_begin(&player, light_data);
  for (scene = 0; scene < light_scenes(&player); ++scene) {
    uint32_t frame;
    light_scene(&player, scene);
    for (frame = 0; frame < FRAMES; frame += STEP) {
      const uint32_t before = REGISTER(0xe000e018);
      const uint8_t is_lit = light_frame(&player, frame);
      const uint32_t after = REGISTER(0xe000e018);
      if (!is_lit) break;
      put_line((before - after) & 0xffffff);
    }
  }
  host(0x18, (const void *)0x20026);
  for (;;) {
  }
}

void reset(void) {
  uint32_t *to, *from = &data_load;
  for (to = &data_begin; to < &data_end;) *to++ = *from++;
  for (to = &bss_begin; to < &bss_end;) *to++ = 0;
  main();
}

/* What libgcc's division and the compiler's own copying may call. */
void *memset(void *to, int value, unsigned long count) {
  uint8_t *at = to;
  while (count--) *at++ = (uint8_t)value;
  return to;
}
void *memcpy(void *to, const void *from, unsigned long count) {
  uint8_t *at = to;
  const uint8_t *source = from;
  while (count--) *at++ = *source++;
  return to;
}

__attribute__((section(".vectors"), used)) static const void *const vectors[] = {&stack_top, (void *)reset};
