// Key, door, valve: two maps of the demo world, a saved game in between.
//
// usage: doors [WORLD]      (default: the demo world)
//
// The game only moves the warden and reports when it uses something. What is taken, opened and started is declared in
// the designers' files.
#include <fmt/format.h>
#include <dryground/dryground.hpp>

namespace dg = dryground;

namespace {

class Game {
public:
    Game(const dg::Pack& pack, const char* map) : play(pack, map), tracker(play) {}

    // The warden goes somewhere, and may use what is there.
    void go(dg::PointPx to, bool uses = false) {
        const dg::BodyNow warden{1, play.map().player, to, dg::StoreyId::ground, uses};
        std::string arrival;
        for (const dg::Firing& firing : tracker.update(0.5, std::span(&warden, 1))) {
            if (firing.object != dg::ObjectId::none)
                fmt::print("  {} '{}'", dg::name_of(firing.fires), play.map().object(firing.object).name);
            else
                fmt::print("  {} of {}", dg::name_of(firing.fires), play.world().tile(firing.tile).name);
            for (const dg::Edit& change : firing.changed.edits)
                if (change.sort == dg::Edit::Sort::fact) fmt::print(": {}", play.world().fact(change.fact).note);
            if (firing.event != dg::EventId::none) fmt::print(", runs {}", play.world().event(firing.event).name);
            if (firing.link != nullptr) arrival = firing.link->to;
            fmt::print("\n");
        }
        if (arrival.empty()) return;
        play.go_to(arrival.substr(0, arrival.find('/')));
        at_ = arrival;
        fmt::print("  arrives at {}\n", at_);
    }
    dg::Play play;
    dg::TriggerTracker tracker;

private:
    std::string at_;
};

}   // namespace

int main(int argc, char** argv) {
    const dg::Result<dg::World> loaded = dg::load_world(argc > 1 ? argv[1] : DRYGROUND_DEMO_WORLD);
    if (!loaded) {
        fmt::print(stderr, "{}", dg::text(loaded.report()));
        return 1;
    }
    // A game loads the pack that its build made; here it is made on the spot.
    const dg::Pack pack = *dg::read_pack(dg::pack_bytes(*loaded));

    Game game(pack, "slipway");
    fmt::print("at the hatch, without the key\n");
    game.go({584, 96}, true);
    fmt::print("to the key, and back to the hatch\n");
    game.go({420, 126});
    game.go({584, 96}, true);
    const std::string saved = dg::changes_bytes(game.play.world(), game.play.changes());
    fmt::print("saved: {} bytes\n", saved.size());

    Game again(pack, "pump_house");
    const dg::Result<dg::LoadedChanges> changes = dg::read_changes(again.play.world(), saved);
    if (!changes || !again.play.apply(changes->changes).empty()) return 1;
    fmt::print("loaded: the key is {}\n", again.play.holds("has_hatch_key") ? "there" : "lost");
    if (again.play.map().name != "pump_house") again.play.go_to("pump_house");   // where the hatch leads nowhere
    fmt::print("to the valve\n");
    again.go({248, 100}, true);
    fmt::print("the pump {}\n", again.play.holds("pump_running") ? "runs" : "stands still");
    fmt::print("and home\n");
    again.go({24, 108});
    return again.play.holds("pump_running") ? 0 : 1;
}
