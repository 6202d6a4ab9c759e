// What a game asks every frame allocates nothing, and many threads may ask at once. A program of its own: it counts
// every allocation of the process.
#include <catch2/catch.hpp>

#include <atomic>
#include <cstdlib>
#include <new>
#include <thread>

#include "clean_worlds.hpp"
#include "dryground/triggers.hpp"

namespace {

std::atomic<std::size_t> allocations{0};

}   // namespace

void* operator new(std::size_t size) {
    ++allocations;
    if (void* memory = std::malloc(size)) return memory;
    throw std::bad_alloc();
}
void operator delete(void* memory) noexcept { std::free(memory); }
void operator delete(void* memory, std::size_t) noexcept { std::free(memory); }

using namespace dryground;

namespace {

// How many allocations some work takes.
template <class Work>
std::size_t counted(Work work) {
    const std::size_t before = allocations;
    work();
    return allocations - before;
}

}   // namespace

TEST_CASE("queries allocate nothing, nor do trackers once they have held as much") {
    for (const std::uint64_t round : {std::uint64_t{0}, std::uint64_t{1}, std::uint64_t{2}}) {
        const Result<World> loaded = worlds::load(worlds::clean_world(round));
        REQUIRE(loaded);
        Play play(*loaded, "outside");
        TouchTracker touches;
        TriggerTracker triggers(play);
        std::array<BodyNow, 20> bodies{};
        for (std::size_t i = 0; i < bodies.size(); ++i)
            bodies[i] = {
                i, id_of<MoverId>(i % 2), {20.0 + 16 * static_cast<double>(i), 60.0 + 3 * static_cast<double>(i)}};
        std::vector<Contact> contacts;   // along the ground
        for (const Chunk& chunk : play.merge().chunks)
            for (const Group& group : chunk.groups)
                for (const Chain& chain : group.chains)
                    for (std::size_t i = 0; i + 1 < chain.points.size(); ++i) {
                        const Point a = chain.points[i], b = chain.points[i + 1];
                        contacts.push_back({.point = {to_px(a.x + (b.x - a.x) / 2), to_px(a.y + (b.y - a.y) / 2)},
                                            .normal = {to_px(b.y - a.y), -to_px(b.x - a.x)}});
                    }
        std::size_t touched = 0;
        const auto frame = [&](double by) {
            for (BodyNow& body : bodies) {
                body.position.x += by;
                Contact contact = contacts[body.id % contacts.size()];
                contact.body = BoxPx{contact.point.x - 5, contact.point.y - 7, 10, 14};
                for (const Touch& touch : play.touched(contact)) touches.touch(body.id, -1, touch), ++touched;
                const Cell cell = play.cell_at(body.position);
                (void)play.tile_at(LayerId{0}, cell);
                (void)play.says(cell);
                (void)play.may_step(body.mover, cell, {cell.column + 1, cell.row + 1});
                (void)play.blocked(body.mover, body.position, {body.position.x + 40, body.position.y + 10});
            }
            (void)touches.end_frame();
        };
        for (int i = 0; i < 40; ++i) frame(i % 2 == 0 ? 3 : -3);   // until lists are as long as they get
        CHECK(counted([&] {
                  for (int i = 0; i < 40; ++i) frame(i % 2 == 0 ? 3 : -3);
              }) == 0);
        CHECK(touched > 0);
        // Bodies that stay where they are fire nothing new.
        for (int i = 0; i < 4; ++i) (void)triggers.update(0.1, bodies);
        CHECK(counted([&] {
                  for (int i = 0; i < 20; ++i) (void)triggers.update(0.1, bodies);
              }) == 0);
    }
}

TEST_CASE("many threads ask at once and are reported the same") {
    const Result<World> loaded = worlds::load(worlds::clean_world(0));
    REQUIRE(loaded);
    const Play play(*loaded, "outside");
    const auto ask = [&play] {
        std::size_t sum = 0;
        for (int i = 0; i < 20'000; ++i) {
            const PointPx place{static_cast<double>(i % 700), static_cast<double>(i % 190)};
            for (const Touch& touch : play.touched({.point = place, .normal = {0, -1}}))
                sum += static_cast<std::size_t>(touch.cell.column + 7 * touch.cell.row);
            sum += static_cast<std::size_t>(play.blocked(MoverId{0}, place, {place.x + 30, place.y}).at * 1000);
        }
        return sum;
    };
    const std::size_t alone = ask();
    std::array<std::size_t, 4> sums{};
    std::vector<std::thread> threads;
    for (std::size_t& sum : sums) threads.emplace_back([&sum, &ask] { sum = ask(); });
    for (std::thread& thread : threads) thread.join();
    for (const std::size_t sum : sums) CHECK(sum == alone);
}
