/* The innermost loop of the height-field kernel, in plain C: the yardstick for kernel.wat. */
#include <math.h>
#include <stdint.h>
#include <stdio.h>
#include <stdlib.h>
#include <time.h>

static double lower_row(float *height, int32_t *owner, int from, int to, double z, int32_t mark, double *deepest) {
  double sum = 0, top = *deepest;
  for (int i = from; i <= to; i++) {
    double over = height[i] - z;
    if (over > 0) {
      sum += over;
      if (over > top) top = over;
      height[i] = (float)z;
      owner[i] = mark;
    }
  }
  *deepest = top;
  return sum;
}

static double seconds(void) {
  struct timespec t;
  clock_gettime(CLOCK_MONOTONIC, &t);
  return t.tv_sec + t.tv_nsec * 1e-9;
}

/* A disc of `radius` cells moved along rows of an n x n field, layer by layer, as in kernel.ts. */
int main(int argc, char **argv) {
  int n = atoi(argv[1]), radius = atoi(argv[2]), step = atoi(argv[3]), layers = atoi(argv[4]), rounds = atoi(argv[5]);
  float *height = malloc(sizeof(float) * n * n);
  int32_t *owner = malloc(sizeof(int32_t) * n * n);
  double best = 1e9, volume = 0;
  for (int round = 0; round < rounds; round++) {
    for (int i = 0; i < n * n; i++) height[i] = 0, owner[i] = -1;
    double started = seconds(), deepest = 0;
    int32_t mark = 0;
    volume = 0;
    for (int layer = 1; layer <= layers; layer++)
      for (int cy = radius; cy < n - radius; cy += radius)
        for (int cx = radius; cx < n - radius; cx += step, mark++)
          for (int dy = -radius; dy <= radius; dy++) {
            int half = (int)sqrt((double)(radius * radius - dy * dy));
            int base = (cy + dy) * n;
            volume += lower_row(height, owner, base + cx - half, base + cx + half, -0.5 * layer, mark, &deepest);
          }
    double took = seconds() - started;
    if (took < best) best = took;
  }
  printf("%.6f %.3f\n", best, volume);
  free(height);
  free(owner);
  return 0;
}
