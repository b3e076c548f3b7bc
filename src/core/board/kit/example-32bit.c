/* Plays the light on a 32-bit STM32F103 (Cortex-M3) at 36 MHz: strip on PA7, button from PA0 to ground.
 *
 *   arm-none-eabi-gcc -std=c99 -mcpu=cortex-m3 -mthumb -Os -ffreestanding -c example-32bit.c player.c
 *
 * Link it with the start-up code and the linker script of your board. The strip's chips take one wire: SPI 1
 * makes the bits, at 3 to a bit: 110 is a 1, 100 is a 0.
 */
#include <stdint.h>

#define LIGHT_WITH_DATA
#include "player.h"

#define CLOCK_HZ 36000000UL

#define REGISTER(address) (*(volatile uint32_t *)(address))
#define RCC_CR REGISTER(0x40021000)
#define RCC_CFGR REGISTER(0x40021004)
#define RCC_APB2ENR REGISTER(0x40021018)
#define FLASH_ACR REGISTER(0x40022000)
#define GPIOA_CRL REGISTER(0x40010800)
#define GPIOA_IDR REGISTER(0x40010808)
#define GPIOA_ODR REGISTER(0x4001080c)
#define SPI1_CR1 REGISTER(0x40013000)
#define SPI1_SR REGISTER(0x40013008)
#define SPI1_DR REGISTER(0x4001300c)
#define SYSTICK_CONTROL REGISTER(0xe000e010)
#define SYSTICK_RELOAD REGISTER(0xe000e014)
#define SYSTICK_NOW REGISTER(0xe000e018)

static struct light_player player;
static volatile uint32_t milliseconds;

void SysTick_Handler(void) { ++milliseconds; }

uint32_t light_millis(void) { return milliseconds; }

static void spi_put(uint8_t byte) {
  while (!(SPI1_SR & 2)) {
  }
  SPI1_DR = byte;
}

void light_send(const uint8_t *bytes, uint16_t count) {
  uint8_t i;
  /* A pause of 300 microseconds ends the frame. */
  for (i = 0; count == 0 && i < 90; ++i) spi_put(0);
  for (; count; --count, ++bytes) {
    /* 8 bits become 24. */
    uint32_t wide = 0;
    uint8_t bit;
    for (bit = 128; bit; bit >>= 1) wide = wide << 3 | (*bytes & bit ? 6 : 4);
    spi_put((uint8_t)(wide >> 16));
    spi_put((uint8_t)(wide >> 8));
    spi_put((uint8_t)wide);
  }
}

static uint8_t is_pressed(void) {
  static uint8_t steady;
  if (GPIOA_IDR & 1)
    steady = 0;
  else if (steady < 50)
    ++steady;
  else if (steady == 50) {
    ++steady;
    return 1;
  }
  return 0;
}

/* The inner oscillator, halved and times nine: 36 MHz, with one wait for the flash. */
static void set_clock(void) {
  FLASH_ACR = 0x11;
  RCC_CFGR = 7u << 18;
  RCC_CR |= 1u << 24;
  while (!(RCC_CR & 1u << 25)) {
  }
  RCC_CFGR |= 2;
  while ((RCC_CFGR & 12) != 8) {
  }
}

int main(void) {
  set_clock();
  RCC_APB2ENR |= 1u << 2 | 1u << 12;
  /* PA7 is what SPI sends, PA0 an input that is held high. */
  GPIOA_CRL = (GPIOA_CRL & 0x0ffffff0) | 0xb0000008;
  GPIOA_ODR |= 1;
  /* Master, a sixteenth of the clock: 2.25 MHz, 444 ns a third of a bit. */
  SPI1_CR1 = 1u << 2 | 3u << 3 | 1u << 6 | 1u << 8 | 1u << 9;
  SYSTICK_RELOAD = CLOCK_HZ / 1000 - 1;
  SYSTICK_NOW = 0;
  SYSTICK_CONTROL = 7;
  light_begin(&player, light_data);
  for (;;) {
    if (is_pressed()) light_next_scene(&player);
    light_poll(&player);
  }
}
