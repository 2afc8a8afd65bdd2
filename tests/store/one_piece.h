// A project to record into.
#pragma once

#include "fields.h"
#include <anvil/store/project.h>
#include <gtest/gtest.h>

/// A new project with one piece; returns its specimen.
inline anvil::domain::Id makeOnePiece(const QString& path) {
    using namespace anvil;
    const auto p = std::move(*store::Project::create(path));
    domain::Id specimen = 0;
    const auto done = p->write("fill", [&](store::Writer& w) {
        domain::Option o;
        domain::Condition c;
        domain::Specimen s;
        s.study = o.study = c.study = w.insert("study", store::toRow(domain::Study{}));
        s.option = w.insert("option", store::toRow(o));
        s.condition = w.insert("condition", store::toRow(c));
        s.label = "A1-1";
        specimen = w.insert("specimen", store::toRow(s));
    });
    EXPECT_TRUE(done) << (done ? "" : done.error().message);
    return specimen;
}
