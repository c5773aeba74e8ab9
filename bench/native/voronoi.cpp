// Builds the sweep-line Voronoi diagram of segments with Boost.Polygon and prints the median milliseconds of
// several runs. Input: lines "x0 y0 x1 y1" in integer units. The yardstick for our medial axis, nothing else.
#include <algorithm>
#include <boost/polygon/voronoi.hpp>
#include <chrono>
#include <cstdio>
#include <vector>

struct P { int x, y; };
struct S { P a, b; };
namespace boost { namespace polygon {
template <> struct geometry_concept<P> { typedef point_concept type; };
template <> struct point_traits<P> { typedef int coordinate_type; static int get(const P& p, orientation_2d o) { return o == HORIZONTAL ? p.x : p.y; } };
template <> struct geometry_concept<S> { typedef segment_concept type; };
template <> struct segment_traits<S> { typedef int coordinate_type; typedef P point_type; static P get(const S& s, direction_1d d) { return d.to_int() ? s.b : s.a; } };
}}

int main(int argc, char** argv) {
  std::vector<S> s;
  FILE* f = std::fopen(argv[1], "r");
  if (!f) return 1;
  int a, b, c, d;
  while (std::fscanf(f, "%d %d %d %d", &a, &b, &c, &d) == 4) s.push_back(S{P{a, b}, P{c, d}});
  std::fclose(f);
  std::vector<double> t;
  size_t edges = 0;
  for (int k = 0; k < 7; k++) {
    auto begin = std::chrono::steady_clock::now();
    boost::polygon::voronoi_diagram<double> v;
    boost::polygon::construct_voronoi(s.begin(), s.end(), &v);
    t.push_back(std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count());
    edges = v.num_edges();
  }
  std::sort(t.begin(), t.end());
  std::printf("%.2f %zu %zu\n", t[t.size() / 2], s.size(), edges);
}
