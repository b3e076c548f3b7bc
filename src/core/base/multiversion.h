// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

/// Before a function: compiled twice, for AVX2 and for the baseline, and chosen at start. Without fused
/// multiply-add, so that both give the same bits. Not with sanitizers, which are not ready yet when the
/// choice is made, and not with clang, which refuses functions of a file's own.
#if defined(__x86_64__) && defined(__GNUC__) && !defined(__clang__) && !defined(__SANITIZE_ADDRESS__) && \
    !defined(__SANITIZE_THREAD__)
#define CHISPA_MULTIVERSION __attribute__((target_clones("avx2", "default")))
#else
#define CHISPA_MULTIVERSION
#endif

/// Before a lambda's or a template's body that must become part of such a function.
#define CHISPA_INLINED __attribute__((always_inline))
