/* Runs a program of an 8-bit board under simavr: avrboard ELF [CYCLES]. Prints, a line a frame, the cycles
 * that it took to compute and its bytes; then the RAM that was touched; and for programs that drive pin PB0
 * each bit's high and low time. */
#include <simavr/avr_ioport.h>
#include <simavr/sim_avr.h>
#include <simavr/sim_elf.h>
#include <simavr/sim_io.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>

enum { GPIOR0_AT = 0x3e, GPIOR1_AT = 0x4a, FIRST_RAM = 0x100, LAST_RAM = 0x8ff, UNTOUCHED = 0xa5 };

static avr_cycle_count_t begun, taken;
static int is_over, is_open;

static void end_line(void) {
  if (is_open) printf("\n");
  is_open = 0;
}

static void on_mark(avr_t *avr, avr_io_addr_t addr, uint8_t value, void *param) {
  (void)addr;
  (void)param;
  if (value == 1) begun = avr->cycle;
  if (value == 2) taken = avr->cycle - begun;
  if (value == 3) {
    end_line();
    printf("%llu ", (unsigned long long)taken);
    is_open = 1;
  }
  if (value == 4) is_over = 1;
}

static void on_byte(avr_t *avr, avr_io_addr_t addr, uint8_t value, void *param) {
  (void)avr;
  (void)addr;
  (void)param;
  printf("%02x", value);
}

/* ---- The waveform of one wire ---- */

enum { MOST_EDGES = 200000 };
static avr_cycle_count_t edges[MOST_EDGES];
static int count_of_edges, level;

static void on_pin(struct avr_irq_t *irq, uint32_t value, void *param) {
  avr_t *avr = param;
  (void)irq;
  if ((int)value == level || count_of_edges == MOST_EDGES) return;
  level = (int)value;
  edges[count_of_edges++] = avr->cycle;
}

/* Edges come in turns: up, down. In cycles. */
static void print_waveform(void) {
  int i;
  for (i = 0; i + 2 < count_of_edges; i += 2)
    printf("%llu,%llu ", (unsigned long long)(edges[i + 1] - edges[i]),
           (unsigned long long)(edges[i + 2] - edges[i + 1]));
  printf("\n");
}

/* RAM in use: all but the longest stretch that was never written. */
static int ram_touched(const avr_t *avr) {
  int at, run = 0, longest = 0;
  for (at = FIRST_RAM; at <= LAST_RAM; ++at) {
    run = avr->data[at] == UNTOUCHED ? run + 1 : 0;
    if (run > longest) longest = run;
  }
  return LAST_RAM - FIRST_RAM + 1 - longest;
}

int main(int argc, char **argv) {
  elf_firmware_t firmware = {0};
  avr_t *avr;
  unsigned long long most_cycles;
  if (argc < 2 || elf_read_firmware(argv[1], &firmware) != 0) return 2;
  most_cycles = argc > 2 ? strtoull(argv[2], NULL, 10) : 100000000000ULL;
  avr = avr_make_mcu_by_name("atmega328p");
  if (!avr) return 2;
  avr_init(avr);
  avr->frequency = 16000000;
  avr->log = LOG_NONE;
  avr_load_firmware(avr, &firmware);
  memset(avr->data + FIRST_RAM, UNTOUCHED, LAST_RAM - FIRST_RAM + 1);
  avr_register_io_write(avr, GPIOR0_AT, on_mark, NULL);
  avr_register_io_write(avr, GPIOR1_AT, on_byte, NULL);
  avr_irq_register_notify(avr_io_getirq(avr, AVR_IOCTL_IOPORT_GETIRQ('B'), 0), on_pin, avr);
  while (!is_over && avr->cycle < most_cycles) {
    const int state = avr_run(avr);
    if (state == cpu_Done || state == cpu_Crashed) return 3;
  }
  end_line();
  printf("ram %d\n", ram_touched(avr));
  if (count_of_edges) print_waveform();
  return 0;
}
