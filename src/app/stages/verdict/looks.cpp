#include "stages/verdict/looks.h"

namespace anvil::app {
namespace {

struct Taker {
    Looks& looks;

    bool operator()(const pages::RankBy& a) const {
        looks.metric = a.metric;
        looks.two.reset();
        return true;
    }
    bool operator()(const pages::ShowScale& a) const {
        looks.scale = a.scale;
        return true;
    }
    bool operator()(const pages::ShowTime& a) const {
        looks.logTime = a.logarithmic;
        return true;
    }
    bool operator()(const pages::PlotGroup& a) const {
        looks.plotOf = a.group;
        return true;
    }
    bool operator()(const pages::CompareTwo& a) const {
        looks.two = {a.first, a.second};
        return true;
    }
    template <class Other> bool operator()(const Other&) const { return false; }
};

} // namespace

bool Looks::take(const pages::Action& action) { return std::visit(Taker{*this}, action); }

} // namespace anvil::app
