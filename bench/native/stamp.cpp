// The yardstick of material removal: the cutter is stamped at the end of each move, at the node that lies nearest, from a table
// of its heights. Quick and not exact: what lies between two stamps is left out, and places are rounded to nodes.
//   stamp ball RADIUS 0 0 MOVES RUNS FILE, or cone RADIUS TIP RISE ...: a line of the file is a place; prints least milliseconds.
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <ctime>
#include <vector>

int main(int argc, char **argv) {
  const bool ball = !strcmp(argv[1], "ball");
  const double radius = atof(argv[2]), tip = atof(argv[3]), rise = atof(argv[4]);
  const int n = atoi(argv[5]), runs = atoi(argv[6]);
  const double cell = 0.05;
  const int size = 2000;
  std::vector<double> x(n), y(n), z(n);
  FILE *in = fopen(argv[7], "r");
  for (int i = 0; i < n; i++)
    if (fscanf(in, "%lf %lf %lf", &x[i], &y[i], &z[i]) != 3) return 1;
  fclose(in);
  const int half = (int)std::ceil(radius / cell), side = 2 * half + 1;
  std::vector<float> table(side * side);
  for (int r = 0; r < side; r++)
    for (int c = 0; c < side; c++) {
      const double rho = std::hypot(r - half, c - half) * cell;
      table[r * side + c] = rho > radius ? 1e9f
                            : ball       ? radius - std::sqrt(radius * radius - rho * rho)
                                         : std::fmax(0, rho - tip) * rise;
    }
  double best = 1e18;
  std::vector<float> field(size * size);
  for (int run = 0; run < runs; run++) {
    std::fill(field.begin(), field.end(), 0.f);
    timespec a, b;
    clock_gettime(CLOCK_THREAD_CPUTIME_ID, &a);
    for (int i = 0; i < n; i++) {
      if (z[i] >= 0) continue;
      const double h = -z[i];
      const double w = ball ? (h >= radius ? radius : std::sqrt(h * (2 * radius - h))) : std::fmin(radius, tip + h / rise);
      const int c = (int)std::lround(x[i] / cell), r = (int)std::lround(y[i] / cell);
      const int reach = (int)std::floor(w / cell);
      for (int dr = -reach; dr <= reach; dr++) {
        if (r + dr < 0 || r + dr >= size) continue;
        const int wide = (int)std::sqrt((w / cell) * (w / cell) - dr * dr);
        int c0 = c - wide, c1 = c + wide;
        if (c0 < 0) c0 = 0;
        if (c1 > size - 1) c1 = size - 1;
        float *f = &field[(size_t)(r + dr) * size];
        const float *t = &table[(dr + half) * side + half - c];
        const float zi = z[i];
        for (int k = c0; k <= c1; k++) {
          const float v = zi + t[k];
          f[k] = v < f[k] ? v : f[k];
        }
      }
    }
    clock_gettime(CLOCK_THREAD_CPUTIME_ID, &b);
    const double t = (b.tv_sec - a.tv_sec) * 1e3 + (b.tv_nsec - a.tv_nsec) / 1e6;
    if (t < best) best = t;
  }
  double sum = 0;
  for (float v : field) sum += v;
  printf("%f %f\n", best, sum);
}
