// The yardstick of cutter location: the greatest of surface less outline over all nodes that the cutter covers, one after the other.
//   locate SIZE STEP ROWS K RUNS SURFACE OUTLINE OUT: floats, (K + 1) x (K + 1) of the outline; the middle ROWS rows; prints least
// milliseconds.
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <ctime>
#include <vector>

static std::vector<float> read(const char *name, size_t n) {
  std::vector<float> v(n);
  FILE *in = fopen(name, "rb");
  if (!in || fread(v.data(), 4, n, in) != n) exit(1);
  fclose(in);
  return v;
}

int main(int, char **argv) {
  const int size = atoi(argv[1]), step = atoi(argv[2]), rows = atoi(argv[3]), k = atoi(argv[4]), runs = atoi(argv[5]);
  const std::vector<float> z = read(argv[6], (size_t)size * size), quarter = read(argv[7], (size_t)(k + 1) * (k + 1));
  const int side = 2 * k + 1, count = (size + step - 1) / step, first = (size - rows * step) / 2;
  std::vector<float> outline((size_t)side * side);
  std::vector<int> reach(side, -1);
  for (int j = -k; j <= k; j++)
    for (int i = -k; i <= k; i++) {
      const float h = quarter[abs(j) * (k + 1) + abs(i)];
      outline[(j + k) * side + i + k] = h;
      if (std::isfinite(h) && i > reach[j + k]) reach[j + k] = i;
    }
  std::vector<float> out((size_t)rows * count);
  double best = 1e18;
  for (int run = 0; run < runs; run++) {
    timespec a, b;
    clock_gettime(CLOCK_THREAD_CPUTIME_ID, &a);
    for (int r = 0; r < rows; r++)
      for (int p = 0; p < count; p++) {
        const int y = first + r * step, x = p * step;
        float most = -1e9f;
        for (int j = -k; j <= k; j++) {
          const int w = reach[j + k];
          if (w < 0 || y + j < 0 || y + j >= size) continue;
          const int from = x - w < 0 ? 0 : x - w, to = x + w >= size ? size - 1 : x + w;
          const float *h = &z[(size_t)(y + j) * size], *t = &outline[(j + k) * side + k - x];
          for (int c = from; c <= to; c++) {
            const float v = h[c] - t[c];
            most = v > most ? v : most;
          }
        }
        out[(size_t)r * count + p] = most;
      }
    clock_gettime(CLOCK_THREAD_CPUTIME_ID, &b);
    best = std::fmin(best, (b.tv_sec - a.tv_sec) * 1e3 + (b.tv_nsec - a.tv_nsec) / 1e6);
  }
  FILE *to = fopen(argv[8], "wb");
  fwrite(out.data(), 4, out.size(), to);
  fclose(to);
  printf("%f\n", best);
}
