// dryground probe: what is at a place of a map, and why.

#include <algorithm>
#include <memory>

#include "../command.hpp"
#include "dryground/text.hpp"

namespace app {

namespace dg = dryground;

namespace {

struct ProbeOptions {
    WorldArguments world;
    std::vector<double> at, normal;
    std::vector<int> cell;
    std::vector<std::string> facts;
    std::string mover, storey, out;
};

void run_probe(const ProbeOptions& options) {
    if (options.at.empty() == options.cell.empty())
        stop(misuse, "give a place: --at X,Y in px, or --cell C,R for a cell's middle");
    const Opened opened = options.world.open();
    const dg::World& world = opened.world;
    if (opened.maps.size() != 1)
        stop(misuse, fmt::format("choose a map: --map NAME; the world has {}", fmt::join(opened.maps, ", ")));
    const dg::Map& map = world.map(opened.maps.front());
    dg::PointPx place;
    if (options.cell.empty()) {
        place = {options.at[0], options.at[1]};
    } else {
        const dg::Bounds box = map.cell_box(options.cell[0] - map.first_column, options.cell[1] - map.first_row);
        place = {(dg::to_px(box.least.x) + dg::to_px(box.most.x)) / 2,
                 (dg::to_px(box.least.y) + dg::to_px(box.most.y)) / 2};
    }
    if (!dg::in_range(place.x) || !dg::in_range(place.y))
        stop(misuse, "--at: that is further away than any map can be");
    dg::Facts facts;
    for (const std::string& fact : options.facts)
        facts.push_back(find_named<dg::FactId>(world.facts(), fact, "--facts", "fact"));
    std::sort(facts.begin(), facts.end());
    dg::ProbeQuestion question;
    if (!options.normal.empty()) question.normal = dg::PointPx{options.normal[0], options.normal[1]};
    if (!options.mover.empty())
        question.mover = find_named<dg::MoverId>(world.movers(), options.mover, "--mover", "mover");
    if (!options.storey.empty())
        question.storey = find_named<dg::StoreyId>(world.storeys(), options.storey, "--storey", "storey");
    write_result(options.out, dg::visible(dg::text(dg::Prober(world, map, facts).at(place, question))));
}

}   // namespace

void add_probe(CLI::App& app) {
    auto options = std::make_shared<ProbeOptions>();
    CLI::App* command = app.add_subcommand("probe", "Show what is at a place of a map, and why");
    options->world.add_to(*command);
    command->add_option("--at", options->at, "The place, px")->delimiter(',')->expected(2)->type_name("X,Y");
    command->add_option("--cell", options->cell, "The middle of a cell, in place of --at")
        ->delimiter(',')
        ->expected(2)
        ->type_name("C,R");
    command
        ->add_option("--normal", options->normal,
                     "Which tile a contact here means: its normal, out of the ground toward the body")
        ->delimiter(',')
        ->expected(2)
        ->type_name("NX,NY");
    command->add_option("--mover", options->mover, "What this mover would meet and set off, standing here")
        ->type_name("NAME");
    command->add_option("--storey", options->storey, "Only what is on this storey (default: all; the mover on ground)")
        ->type_name("NAME");
    command->add_option("--facts", options->facts, "Facts that are true")->type_name("NAME");
    command->add_option("--out", options->out, "Write to a file")->type_name("FILE");
    command->footer("Example: dryground probe demo/world.toml --map slipway --at 200,128 --normal 0,-1");
    command->callback([options] { run_probe(*options); });
}

}   // namespace app
