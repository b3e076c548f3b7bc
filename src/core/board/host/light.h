/* Room for whatever a board may play, so that Chispa can show beforehand what a board will. */
#ifndef LIGHT_H
#define LIGHT_H

#define LIGHT_BYTES 65536
#define LIGHT_REGISTERS 256
#define LIGHT_PARTS 64

#endif
