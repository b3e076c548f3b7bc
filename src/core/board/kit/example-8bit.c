/* Plays the light on an 8-bit ATmega328P at 16 MHz: strip on pin PB0, button from PD2 to ground.
 *
 *   avr-gcc -std=c99 -mmcu=atmega328p -Os -o light.elf example-8bit.c player.c
 *
 * The strip's chips take one wire: 800,000 bits a second, the first bit of a byte first.
 */
#define F_CPU 16000000UL

#include <avr/interrupt.h>
#include <avr/io.h>
#include <avr/pgmspace.h>

#define LIGHT_IN_FLASH PROGMEM
#define LIGHT_WITH_DATA
#include "player.h"

static struct light_player player;

/* 20 cycles a bit: high for 6 of them is a 0 (375 ns), for 13 a 1 (812 ns). */
void light_send(const uint8_t *bytes, uint16_t count) {
  const uint8_t high = PORTB | _BV(PB0), low = PORTB & (uint8_t)~_BV(PB0), status = SREG;
  uint16_t bits_left = count * 8;
  uint8_t byte, bits = 8;
  if (count == 0) {
    /* A pause of 300 microseconds ends the frame: four cycles each. */
    for (bits_left = 1200; bits_left; --bits_left) __asm__ volatile("");
    return;
  }
  cli();
  __asm__ volatile(
      "ld %[byte], %a[at]+\n"
      "1: out %[port], %[high]\n"
      "nop\n nop\n nop\n nop\n"
      "sbrs %[byte], 7\n"
      "out %[port], %[low]\n"
      "lsl %[byte]\n"
      "dec %[bits]\n"
      "brne 2f\n"
      "ld %[byte], %a[at]+\n"
      "ldi %[bits], 8\n"
      "3: out %[port], %[low]\n"
      "sbiw %[left], 1\n"
      "breq 4f\n"
      "nop\n"
      "rjmp 1b\n"
      "2: rjmp 3b\n"
      "4:\n"
      : [byte] "=&r"(byte), [bits] "+d"(bits), [left] "+w"(bits_left), [at] "+e"(bytes)
      : [port] "I"(_SFR_IO_ADDR(PORTB)), [high] "r"(high), [low] "r"(low)
      : "memory");
  SREG = status;
}

/* Timer 1 counts 15,625 times a second and needs no interrupt; it is read more often than every 4 seconds. */
uint32_t light_millis(void) {
  static uint32_t passed;
  static uint16_t last;
  const uint16_t now = TCNT1;
  passed += (uint16_t)(now - last);
  last = now;
  return passed / 125 * 8 + passed % 125 * 8 / 125;
}

/* True once for each press. */
static uint8_t is_pressed(void) {
  static uint8_t steady;
  if (PIND & _BV(PD2))
    steady = 0;
  else if (steady < 50)
    ++steady;
  else if (steady == 50) {
    ++steady;
    return 1;
  }
  return 0;
}

int main(void) {
  DDRB |= _BV(PB0);
  PORTD |= _BV(PD2);
  TCCR1A = 0;
  TCCR1B = _BV(CS12) | _BV(CS10);
  light_begin(&player, light_data);
  for (;;) {
    if (is_pressed()) light_next_scene(&player);
    light_poll(&player);
  }
}
