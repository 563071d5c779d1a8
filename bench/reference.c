/* The same laws as plain loops, for comparison: a 24-module mixed patch, 8 s at 48 kHz.
 * Prints nanoseconds and checksums of four outputs. Build: cc -O3 -march=native -o reference reference.c -lm */
#include <math.h>
#include <stdio.h>
#include <stdlib.h>
#include <time.h>

#define N 384000
#define RATE 48000.0
#define BLOCK 512
static double now(void) { struct timespec t; clock_gettime(CLOCK_MONOTONIC, &t); return t.tv_sec * 1e9 + t.tv_nsec; }
static double clampd(double x, double lo, double hi) { return x < lo ? lo : x > hi ? hi : x; }
static double frac(double x) { double f = x - floor(x + 1e-9); return f < 0 ? 0 : f; }
static double tri(double p) { return p < 0.25 ? 4 * p : p < 0.75 ? 2 - 4 * p : 4 * p - 4; }
static double blep(double p, double d) {
  if (p < d) { double t = p / d; return t + t - t * t - 1; }
  if (p > 1 - d) { double t = (p - 1) / d; return t * t + t + t + 1; }
  return 0;
}
static void sine(double *o, double hz, int k0, int n) { for (int i = 0; i < n; i++) o[i] = 5 * sin(2 * M_PI * frac(hz * (k0 + i) / RATE)); }
static void triangle(double *o, double hz, int k0, int n) { for (int i = 0; i < n; i++) o[i] = 5 * tri(frac(hz * (k0 + i) / RATE)); }
static void saw(double *o, double hz, int k0, int n) {
  double d = hz / RATE;
  for (int i = 0; i < n; i++) { double p = frac(hz * (k0 + i) / RATE); o[i] = 5 * clampd(2 * p - 1 - blep(p, d), -1, 1); }
}
static void affine(const double *x, double a, double b, double *o, int n) { for (int i = 0; i < n; i++) o[i] = a * x[i] + b; }
static void mix3(const double *x, const double *y, const double *z, double a, double b, double c, double *o, int n) { for (int i = 0; i < n; i++) o[i] = a * x[i] + b * y[i] + c * z[i]; }
static void vca(const double *x, const double *cv, double *o, int n) { for (int i = 0; i < n; i++) o[i] = clampd(cv[i] / 5, 0, 2) * x[i]; }
static void vcaexp(const double *x, const double *cv, double *o, int n) {
  double k = log(1000), s = exp(k) - 1;
  for (int i = 0; i < n; i++) { double c = cv[i] / 5; double g = c < 0 ? 0 : fmin(2, (exp(k * c) - 1) / s); o[i] = g * x[i]; }
}
static void rails(double *o, int n) { for (int i = 0; i < n; i++) o[i] = clampd(o[i], -12, 12); }
static void slew(const double *x, double *y, double T, double *o, int k0, int n) {
  double step = 10 / T / RATE, v = k0 == 0 ? x[0] : *y;
  for (int i = 0; i < n; i++) { v = x[i] > v ? fmin(x[i], v + step) : fmax(x[i], v - step); o[i] = v; }
  *y = v;
}
typedef struct { double s1, s2; } svf;
static void filter(const double *x, const double *cut, double hz, double res, svf *f, double *o, int n) {
  double d = 2 * (1 - 0.995 * res), s1 = f->s1, s2 = f->s2;
  for (int i = 0; i < n; i++) {
    double fc = clampd(hz * exp2(cut[i]), 16, 20000), g = tan(M_PI * fc / RATE), sc = 1 / (1 + d * g + g * g);
    double hp = (x[i] - (d + g) * s1 - s2) * sc, bp = g * hp + s1, lp = g * bp + s2;
    s1 = g * hp + bp; s2 = g * bp + lp; o[i] = lp;
  }
  f->s1 = s1; f->s2 = s2;
}
int main(void) {
  static double m[24][BLOCK];
  static double sum[24];
  svf f1 = {0, 0}, f2 = {0, 0}, f3 = {0, 0};
  double best = 1e18;
  for (int run = 0; run < 5; run++) {
    double y1 = 0, y2 = 0;
    f1 = f2 = f3 = (svf){0, 0};
    for (int j = 0; j < 24; j++) sum[j] = 0;
    double start = now();
    for (int k0 = 0; k0 < N; k0 += BLOCK) {
      int n = N - k0 < BLOCK ? N - k0 : BLOCK;
      triangle(m[0], 0.25, k0, n); sine(m[1], 0.5, k0, n); triangle(m[2], 1.5, k0, n); sine(m[3], 3, k0, n);
      affine(m[0], 0.4, 2, m[4], n); affine(m[1], 0.5, 0, m[5], n); affine(m[5], -1, 0, m[6], n); affine(m[2], 0.5, 2.5, m[7], n);
      mix3(m[4], m[5], m[7], 0.5, 0.25, 0.25, m[8], n); slew(m[7], &y1, 2, m[9], k0, n); slew(m[2], &y2, 4, m[10], k0, n);
      saw(m[11], 110, k0, n); saw(m[12], 220.5, k0, n); sine(m[13], 440, k0, n);
      filter(m[11], m[8], 200, 0.3, &f1, m[14], n); filter(m[12], m[5], 800, 0.4, &f2, m[15], n); filter(m[12], m[6], 800, 0.4, &f3, m[16], n);
      mix3(m[14], m[15], m[16], 0.5, 0.3, 0.3, m[17], n); vca(m[17], m[4], m[18], n); vcaexp(m[13], m[9], m[19], n);
      mix3(m[18], m[19], m[3], 0.5, 0.5, 0, m[20], n); affine(m[20], 0.8, 0, m[21], n); vca(m[21], m[7], m[22], n); affine(m[22], -1, 0, m[23], n);
      for (int j = 0; j < 24; j++) { rails(m[j], n); double s = 0; for (int i = 0; i < n; i++) s += m[j][i]; sum[j] += s; }
    }
    double took = now() - start;
    if (took < best) best = took;
  }
  printf("{\"ns\":%.0f,\"sums\":[", best);
  for (int j = 0; j < 24; j++) printf("%s%.17g", j ? "," : "", sum[j] / N);
  printf("]}\n");
  return 0;
}
