/* SPDX-License-Identifier: GPL-3.0-or-later
 * Reads a recording of Chispa, as docs/recording.md describes it, and prints its frames:
 *   cc recording-reader.c -lzstd -o recording-reader && ./recording-reader FILE [UNIVERSE]
 * First comes the header (JSON), then a line a frame: the instant in microseconds, and the 512 values of one universe of
 * the header, from 0, as hexadecimal digits. */
#include <inttypes.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <zstd.h>

enum { CHANNELS = 512 };

static uint64_t number(const unsigned char *bytes, int count) {
  uint64_t sum = 0;
  while (count-- > 0) sum = sum << 8 | bytes[count];
  return sum;
}

/* Unpacks one zstd frame of `size` bytes, whose checksum zstd compares; NULL if it is damaged or too large. */
static unsigned char *unpacked(FILE *file, uint64_t size, uint64_t *length) {
  unsigned char *packed = size < (1u << 30) ? malloc(size + 1) : NULL, *out = NULL;
  if (packed && fread(packed, 1, size, file) == size) {
    *length = ZSTD_getFrameContentSize(packed, size);
    if (*length < (1u << 30)) out = malloc(*length + 1);
    if (out && ZSTD_decompress(out, *length, packed, size) != *length) {
      free(out);
      out = NULL;
    }
    if (out) out[*length] = 0;
  }
  free(packed);
  return out;
}

static int printBlock(FILE *file, const unsigned char *head, uint64_t universes, uint64_t which) {
  const uint64_t frames = number(head + 4, 4), frame = 8 + universes * CHANNELS;
  uint64_t length, i, f;
  unsigned char *block = unpacked(file, number(head + 8, 4), &length);
  if (!block || length != frames * frame) {
    free(block);
    return 0;
  }
  for (f = 0; f < frames; ++f) {
    unsigned char *now = block + f * frame;
    /* Values stand as what changed since the frame before: exclusive or. */
    for (i = 8; f > 0 && i < frame; ++i) now[i] ^= now[i - frame];
    printf("%" PRId64 " ", (int64_t)number(now, 8));
    for (i = 0; i < CHANNELS; ++i) printf("%02x", now[8 + which * CHANNELS + i]);
    putchar('\n');
  }
  free(block);
  return 1;
}

int main(int count, char **words) {
  unsigned char begin[12], head[20];
  const uint64_t which = count > 2 ? strtoull(words[2], NULL, 10) : 0;
  uint64_t length, universes = 0;
  FILE *file = count > 1 ? fopen(words[1], "rb") : NULL;
  unsigned char *header = NULL;
  const char *at;
  if (file && fread(begin, 1, 12, file) == 12 && memcmp(begin, "CHISREC2", 8) == 0) header = unpacked(file, number(begin + 8, 4), &length);
  if (!header) {
    fputs("this is no recording, or its header is damaged\n", stderr);
    return 1;
  }
  puts((char *)header);
  /* A JSON reader would be better: here the universes are counted by the word that each of them has once. */
  at = strstr((char *)header, "\"universes\":[");
  for (at = at ? at + 13 : NULL; at && *at == '{'; at = strchr(at, '}'), at = at && at[1] == ',' ? at + 2 : NULL) ++universes;
  free(header);
  if (which >= universes) {
    fputs("it has no such universe\n", stderr);
    return 1;
  }
  /* The index begins with another word; a file that was cut off simply ends. */
  while (fread(head, 1, 20, file) == 20 && memcmp(head, "BLK1", 4) == 0)
    if (!printBlock(file, head, universes, which)) {
      fputs("a block is damaged\n", stderr);
      return 1;
    }
  return fclose(file);
}
