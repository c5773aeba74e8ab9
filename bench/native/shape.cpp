// The yardstick of shaping reliefs: the same work in the straightest way, by one thread, on a square of nodes.
//   shape mesh|outline|stone|denoise|blend NODES CELL RUNS [FILE]: prints the least milliseconds of processor time, and the mean height.
#include <algorithm>
#include <cmath>
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <ctime>
#include <functional>
#include <vector>

static int n;
static double cell;

static std::vector<float> floats(const char *name) {
  FILE *f = fopen(name, "rb");
  if (!f) exit(1);
  fseek(f, 0, SEEK_END);
  std::vector<float> v(ftell(f) / 4);
  rewind(f);
  if (fread(v.data(), 4, v.size(), f) != v.size()) exit(1);
  fclose(f);
  return v;
}

// The plane of each triangle at each node of its box that lies inside.
static void mesh(const std::vector<float> &p, std::vector<float> &z) {
  std::fill(z.begin(), z.end(), NAN);
  for (size_t i = 0; i < p.size(); i += 9) {
    const double ax = p[i] / cell, ay = p[i + 1] / cell, bx = p[i + 3] / cell, by = p[i + 4] / cell;
    const double cx = p[i + 6] / cell, cy = p[i + 7] / cell, area = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay);
    if (area == 0) continue;
    const int r0 = std::max(0, (int)std::ceil(std::min({ay, by, cy}))), r1 = std::min(n - 1, (int)std::floor(std::max({ay, by, cy})));
    const int c0 = std::max(0, (int)std::ceil(std::min({ax, bx, cx}))), c1 = std::min(n - 1, (int)std::floor(std::max({ax, bx, cx})));
    for (int r = r0; r <= r1; r++)
      for (int c = c0; c <= c1; c++) {
        const double u = ((c - ax) * (cy - ay) - (r - ay) * (cx - ax)) / area, v = ((r - ay) * (bx - ax) - (c - ax) * (by - ay)) / area;
        if (u < -1e-6 || v < -1e-6 || u + v > 1 + 1e-6) continue;
        const float h = p[i + 2] + u * (p[i + 5] - p[i + 2]) + v * (p[i + 8] - p[i + 2]);
        float &at = z[(size_t)r * n + c];
        if (!(at >= h)) at = h;
      }
  }
}

// Inside by crossings of each row; distance by rings of squares of 1 mm round each node, as far as one can hold a nearer segment.
static void outline(const std::vector<float> &p, std::vector<float> &z) {
  const int count = p.size() / 4, side = (int)std::ceil(n * cell) + 1;
  std::vector<std::vector<int>> squares(side * side);
  for (int s = 0; s < count; s++) {
    const float *q = &p[4 * s];
    const int x0 = std::max(0, (int)std::min(q[0], q[2])), x1 = std::min(side - 1, (int)std::max(q[0], q[2]));
    const int y0 = std::max(0, (int)std::min(q[1], q[3])), y1 = std::min(side - 1, (int)std::max(q[1], q[3]));
    for (int y = y0; y <= y1; y++)
      for (int x = x0; x <= x1; x++) squares[y * side + x].push_back(s);
  }
  std::vector<double> xs;
  for (int r = 0; r < n; r++) {
    const double y = r * cell;
    xs.clear();
    for (int s = 0; s < count; s++) {
      const float *q = &p[4 * s];
      if ((q[1] <= y) != (q[3] <= y)) xs.push_back(q[0] + (y - q[1]) / (q[3] - q[1]) * (q[2] - q[0]));
    }
    std::sort(xs.begin(), xs.end());
    for (int c = 0; c < n; c++) {
      const double x = c * cell;
      float &at = z[(size_t)r * n + c];
      at = NAN;
      if ((std::upper_bound(xs.begin(), xs.end(), x) - xs.begin()) % 2 == 0) continue;
      double best = 1e18;
      const int sx = (int)x, sy = (int)y;
      for (int ring = 0; ring < side; ring++) {
        if (ring > 1 && (ring - 1.0) * (ring - 1.0) > best) break;
        for (int j = sy - ring; j <= sy + ring; j++)
          for (int i = sx - ring; i <= sx + ring; i += (j == sy - ring || j == sy + ring) ? 1 : std::max(1, 2 * ring)) {
            if (i < 0 || j < 0 || i >= side || j >= side) continue;
            for (int s : squares[j * side + i]) {
              const float *q = &p[4 * s];
              const double ex = q[2] - q[0], ey = q[3] - q[1], ll = ex * ex + ey * ey;
              double t = ll > 0 ? ((x - q[0]) * ex + (y - q[1]) * ey) / ll : 0;
              t = t < 0 ? 0 : t > 1 ? 1 : t;
              const double dx = x - q[0] - t * ex, dy = y - q[1] - t * ey;
              best = std::min(best, dx * dx + dy * dy);
            }
          }
      }
      at = std::sqrt(best);
    }
  }
}

static uint32_t hashed(int32_t i, int32_t j, int32_t seed) {
  uint32_t h = (uint32_t)i * 0x27d4eb2du ^ (uint32_t)j * 0x165667b1u ^ (uint32_t)seed * 0x9e3779b1u;
  h = (h ^ (h >> 15)) * 0x2c1b3c6du;
  h = (h ^ (h >> 12)) * 0x297a2d39u;
  return h ^ (h >> 15);
}
static const double D = M_SQRT1_2, WX[8] = {1, -1, 0, 0, D, -D, D, -D}, WY[8] = {0, 0, 1, -1, D, D, -D, -D};
static double corner(int i, int j, int seed, double x, double y) {
  const int k = hashed(i, j, seed) >> 29;
  return WX[k] * x + WY[k] * y;
}
static double fade(double t) { return t * t * t * (t * (t * 6 - 15) + 10); }
static double noise(double x, double y, int seed) {
  const int i = (int)std::floor(x), j = (int)std::floor(y);
  const double u = x - i, v = y - j, s = fade(u);
  const double a = corner(i, j, seed, u, v) * (1 - s) + corner(i + 1, j, seed, u - 1, v) * s;
  const double b = corner(i, j + 1, seed, u, v - 1) * (1 - s) + corner(i + 1, j + 1, seed, u - 1, v - 1) * s;
  return M_SQRT2 * (a + (b - a) * fade(v));
}
static void stone(std::vector<float> &z) {
  for (int r = 0; r < n; r++)
    for (int c = 0; c < n; c++) {
      double x = c * cell / 8, y = r * cell / 8, sum = 0, all = 0, high = 0.5;
      for (int k = 0; k < 5; k++) {
        sum += high * noise(x, y, 1 + k);
        all += high;
        high /= 2;
        x = 2 * x + 17.3;
        y = 2 * y - 9.1;
      }
      z[(size_t)r * n + c] = std::min(1.0, std::max(0.0, 0.5 + 0.525 * sum / all)) - 1;
    }
}

// Means over windows of 2 k + 1 nodes, along the rows and then along the columns, by running sums.
static void means(std::vector<float> &v, int k) {
  std::vector<float> line(n);
  auto run = [&](size_t first, size_t step) {
    double sum = 0;
    int count = 0;
    for (int i = 0; i < std::min(k, n); i++) sum += v[first + i * step], count++;
    for (int i = 0; i < n; i++) {
      if (i + k < n) sum += v[first + (i + k) * step], count++;
      if (i > k) sum -= v[first + (i - k - 1) * step], count--;
      line[i] = sum / count;
    }
    for (int i = 0; i < n; i++) v[first + i * step] = line[i];
  };
  for (int r = 0; r < n; r++) run((size_t)r * n, 1);
  for (int c = 0; c < n; c++) run(c, n);
}
static void denoise(const std::vector<float> &h, std::vector<float> &guide, int k, double eps) {
  guide = h;
  const size_t all = h.size();
  std::vector<float> g(all), gg(all), m(all), gh(all);
  for (int round = 0; round < 2; round++) {
    for (size_t i = 0; i < all; i++) g[i] = guide[i], gg[i] = guide[i] * guide[i], m[i] = h[i], gh[i] = guide[i] * h[i];
    means(g, k), means(gg, k), means(m, k), means(gh, k);
    for (size_t i = 0; i < all; i++) {
      const float a = (gh[i] - g[i] * m[i]) / (std::max(0.f, gg[i] - g[i] * g[i]) + (float)eps);
      m[i] -= a * g[i];
      g[i] = a;
    }
    means(g, k), means(m, k);
    for (size_t i = 0; i < all; i++) guide[i] = g[i] * guide[i] + m[i];
  }
}

static void blend(const std::vector<std::vector<float>> &forms, std::vector<float> &z) {
  std::fill(z.begin(), z.end(), NAN);
  for (size_t k = 0; k < forms.size(); k++) {
    const float *f = forms[k].data();
    for (size_t i = 0; i < z.size(); i++) {
      const float u = z[i], h = 0.1f + f[i];
      switch (k % 5) {
        case 0: z[i] = u == u ? u + h : h; break;
        case 1: z[i] = u >= h ? u : h; break;
        case 2: z[i] = u <= h ? u : h; break;
        case 3: z[i] = u == u ? u - h : -h; break;
        default: z[i] = h;
      }
    }
  }
}

int main(int argc, char **argv) {
  const char *what = argv[1];
  n = atoi(argv[2]);
  cell = atof(argv[3]);
  const int runs = atoi(argv[4]);
  const std::vector<float> in = argc > 5 ? floats(argv[5]) : std::vector<float>();
  std::vector<float> z((size_t)n * n);
  std::vector<std::vector<float>> forms;
  if (!strcmp(what, "blend"))
    for (int k = 0; k < 10; k++) forms.emplace_back((size_t)n * n, (float)k);
  const std::function<void()> work = !strcmp(what, "mesh")      ? std::function<void()>([&] { mesh(in, z); })
                                     : !strcmp(what, "outline") ? std::function<void()>([&] { outline(in, z); })
                                     : !strcmp(what, "stone")   ? std::function<void()>([&] { stone(z); })
                                     : !strcmp(what, "denoise") ? std::function<void()>([&] { denoise(in, z, atoi(argv[6]), atof(argv[7])); })
                                                                : std::function<void()>([&] { blend(forms, z); });
  double best = 1e18;
  for (int k = 0; k < runs; k++) {
    timespec a, b;
    clock_gettime(CLOCK_THREAD_CPUTIME_ID, &a);
    work();
    clock_gettime(CLOCK_THREAD_CPUTIME_ID, &b);
    best = std::min(best, (b.tv_sec - a.tv_sec) * 1e3 + (b.tv_nsec - a.tv_nsec) / 1e6);
  }
  double sum = 0;
  size_t count = 0;
  for (float h : z)
    if (h == h) sum += h, count++;
  printf("%g %.6f\n", best, sum / count);
}
