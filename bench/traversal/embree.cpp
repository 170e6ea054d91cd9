// The practical limit: Embree on the same triangles and rays. Usage: embree FOLDER CONFIG REPEATS; prints a line of JSON with
// million rays a second of thread time for camera, bounce and shadow rays, and writes its hits beside the rays.
#include <embree3/rtcore.h>
#include <pmmintrin.h>
#include <time.h>
#include <xmmintrin.h>
#include <algorithm>
#include <cstdio>
#include <cstdlib>
#include <string>
#include <vector>

struct Ray { float o[3], tmin, d[3], tmax; };

template <class T> static std::vector<T> read(const std::string& path) {
  FILE* f = fopen(path.c_str(), "rb");
  if (!f) { fprintf(stderr, "cannot read %s\n", path.c_str()); exit(1); }
  fseek(f, 0, SEEK_END);
  std::vector<T> v(ftell(f) / sizeof(T));
  rewind(f);
  if (fread(v.data(), sizeof(T), v.size(), f) != v.size()) exit(1);
  fclose(f);
  return v;
}
static double now() { timespec t; clock_gettime(CLOCK_THREAD_CPUTIME_ID, &t); return t.tv_sec + t.tv_nsec * 1e-9; }

int main(int argc, char** argv) {
  if (argc < 4) return 1;
  _MM_SET_FLUSH_ZERO_MODE(_MM_FLUSH_ZERO_ON);
  _MM_SET_DENORMALS_ZERO_MODE(_MM_DENORMALS_ZERO_ON);
  const std::string folder = argv[1];
  const int repeats = atoi(argv[3]);
  auto V = read<float>(folder + "/positions.bin");
  auto I = read<unsigned>(folder + "/indices.bin");
  RTCDevice device = rtcNewDevice(argv[2]);
  RTCGeometry g = rtcNewGeometry(device, RTC_GEOMETRY_TYPE_TRIANGLE);
  std::copy(V.begin(), V.end(), (float*)rtcSetNewGeometryBuffer(g, RTC_BUFFER_TYPE_VERTEX, 0, RTC_FORMAT_FLOAT3, 12, V.size() / 3));
  std::copy(I.begin(), I.end(), (unsigned*)rtcSetNewGeometryBuffer(g, RTC_BUFFER_TYPE_INDEX, 0, RTC_FORMAT_UINT3, 12, I.size() / 3));
  rtcSetGeometryBuildQuality(g, RTC_BUILD_QUALITY_HIGH);
  rtcCommitGeometry(g);
  RTCScene scene = rtcNewScene(device);
  rtcSetSceneBuildQuality(scene, RTC_BUILD_QUALITY_HIGH);
  rtcAttachGeometry(scene, g);
  rtcCommitScene(scene);
  double best[3] = {1e9, 1e9, 1e9};
  const char* names[3] = {"camera", "bounce", "shadow"};
  size_t counts[3];
  for (int kind = 0; kind < 3; kind++) {
    auto rays = read<Ray>(folder + "/" + names[kind] + ".rays");
    counts[kind] = rays.size();
    std::vector<float> hits(rays.size());
    for (int k = 0; k < repeats; k++) {
      const double began = now();
      for (size_t i = 0; i < rays.size(); i++) {
        const Ray& r = rays[i];
        RTCIntersectContext context;
        rtcInitIntersectContext(&context);
        RTCRayHit h;
        h.ray.org_x = r.o[0]; h.ray.org_y = r.o[1]; h.ray.org_z = r.o[2]; h.ray.tnear = r.tmin;
        h.ray.dir_x = r.d[0]; h.ray.dir_y = r.d[1]; h.ray.dir_z = r.d[2]; h.ray.tfar = r.tmax;
        h.ray.time = 0; h.ray.mask = -1; h.ray.id = 0; h.ray.flags = 0;
        if (kind == 2) {
          rtcOccluded1(scene, &context, &h.ray);
          hits[i] = h.ray.tfar < 0 ? 1 : -1;
        } else {
          h.hit.geomID = RTC_INVALID_GEOMETRY_ID; h.hit.instID[0] = RTC_INVALID_GEOMETRY_ID;
          rtcIntersect1(scene, &context, &h);
          hits[i] = h.hit.geomID == RTC_INVALID_GEOMETRY_ID ? -1 : h.ray.tfar;
        }
      }
      best[kind] = std::min(best[kind], now() - began);
    }
    FILE* f = fopen((folder + "/" + names[kind] + ".hits").c_str(), "wb");
    fwrite(hits.data(), 4, hits.size(), f);
    fclose(f);
  }
  printf("{\"camera\":%.4f,\"bounce\":%.4f,\"shadow\":%.4f}\n",
         counts[0] / best[0] / 1e6, counts[1] / best[1] / 1e6, counts[2] / best[2] / 1e6);
  return 0;
}
