// What is made of logs and tables in many layouts, as kept.
#include "pins.h"

#include <algorithm>
#include <anvil/columns/number.h>
#include <anvil/tables/file.h>
#include <anvil/tables/log.h>
#include <anvil/tables/names.h>
#include <anvil/tables/values.h>
#include <filesystem>
#include <numeric>

namespace anvil::tables {
namespace {

using columns::clockSeconds;
using columns::readGrouped;
using columns::readNumber;
using pins::num;
using pins::Pin;

double sum(const std::vector<double>& v) { return std::accumulate(v.begin(), v.end(), 0.0); }

void say(Pin& pin, const std::string& name, std::string_view bytes, const Hints& hints = {}) {
    const auto log = readLog(bytes, hints);
    if (!log) return pin.line(name + " refused: " + log.error().message);
    const auto& l = log->layout;
    pin.say("{}: {} {} '{}' '{}' {}{} row {} head {} out {} over {} units {}{}", name, log->encoding,
            log->sheet, l.delimiter, l.decimal, l.column(Role::load)->grouped, l.decimalUnsure, l.firstRow,
            l.headerLine, log->rowsLeftOut, log->overload, log->forceUnitKnown, log->displacementUnitKnown);
    for (const auto& c : l.columns)
        pin.say("  column {} {} {} {} {}{} {} {}", c.header, static_cast<int>(c.role),
                static_cast<int>(c.why), c.unit ? std::string(c.unit->symbol) : "-", c.clock, c.words,
                static_cast<int>(c.tells), c.written);
    for (const auto& r : log->runs) {
        std::string others;
        for (const auto& o : r.curve.others)
            others += fmt::format(" {} {} {} {}", o.name, o.unit, o.values.size(), num(sum(o.values)));
        pin.say("  run {} {} {} {}: {} {} {} {} | {} {} | {} {}{}", r.label, r.option, r.condition,
                r.overload, r.curve.load.size(), quantity::name(r.curve.loadKind), num(sum(r.curve.load)),
                r.curve.load.empty() ? "-" : num(r.curve.load.back()), r.curve.time.size(),
                num(sum(r.curve.time)), r.curve.travel.size(), num(sum(r.curve.travel)), others);
    }
    for (std::size_t i = 0; i < std::min<std::size_t>(4, log->problems.size()); ++i)
        pin.say("  line {} {}", log->problems[i].line, log->problems[i].reason);
    for (const auto& n : log->notes)
        pin.line("  note: " + n);
    for (const auto& n : l.notes)
        pin.line("  layout: " + n);
}

/// How a log may be written.
struct Way {
    const char* delimiter;
    char decimal;
    const char* head; ///< without the runs' column
    int clock;        ///< 0: seconds, 1: milliseconds, 2: h:m:s, 3: date and time, 4: no time at all
    bool travel, runs, thousands;
};

std::string fixed(double v, int digits, char decimal, bool thousands) {
    auto text = fmt::format("{:.{}f}", v, digits);
    auto point = text.find('.');
    if (point == std::string::npos)
        point = text.size();
    else
        text[point] = decimal;
    if (thousands)
        for (std::size_t at = point; at > 3 + (text[0] == '-' ? 1U : 0U); at -= 3)
            text.insert(at - 3, 1, decimal == ',' ? '.' : ',');
    return text;
}

std::string written(const Way& w) {
    std::string out = w.head ? std::string(w.head) + "\n" : "";
    for (int run = 0; run < (w.runs ? 3 : 1); ++run)
        for (int i = 0; i < 30; ++i) {
            const double t = i * 0.1, f = (i < 25 ? 55.25 * i : 3.5) * (1 + 0.1 * run), x = 0.37 * i;
            std::string row;
            const auto add = [&](const std::string& cell) { row += (row.empty() ? "" : w.delimiter) + cell; };
            if (w.clock == 0) add(fixed(t, 2, w.decimal, false));
            if (w.clock == 1) add(fmt::format("{}", i * 100));
            if (w.clock == 2) add(fmt::format("14:05:{:02}{}{}", 10 + i / 10, w.decimal, i % 10));
            if (w.clock == 3) add(fmt::format("2026-05-04 14:05:{:02}.{}", 10 + i / 10, i % 10));
            add(fixed(f, 2, w.decimal, w.thousands));
            if (w.travel) add(fixed(x, 3, w.decimal, false));
            if (w.runs) add(fmt::format("P{}", run + 1));
            out += row + "\n";
        }
    return out;
}

TEST(Pinned, LogsInManyLayouts) {
    Pin pin;
    static const Way ways[] = {
        {",", '.', "time (s),force (N),travel (mm)", 0, true, false, false},
        {";", ',', "Zeit [s];Kraft [kN];Weg [mm]", 0, true, false, false},
        {";", ',', "Zeit;Kraft;Weg\ns;N;mm", 0, true, false, false},
        {"\t", '.', "t\tLoad lbf\tDisp in", 0, true, false, false},
        {"\t", ',', "Time (ms)\tLoad (kgf)", 1, false, false, false},
        {" ", '.', nullptr, 0, true, false, false},
        {",", '.', nullptr, 0, false, false, false},
        {",", '.', "clock,force (N)", 2, false, false, false},
        {";", ',', "Uhrzeit;Kraft (N)", 2, false, false, false},
        {",", '.', "when,kg", 3, false, false, false},
        {",", '.', "time (s),force (N),travel (mm),run", 0, true, true, false},
        {";", ',', "Zeit (s);Kraft (N);Weg (mm);Probe", 0, true, true, false},
        {";", ',', "Zeit (s);Kraft (N)", 0, false, false, true},
        {";", '.', "time (s);force (N)", 0, false, false, true},
        {",", '.', "force (N)", 4, false, false, false},
        {"|", '.', "time|force [lbf]|stroke [in]", 0, true, false, false},
        {",", '.', "# logger 7\n# rate 10 Hz\ntime (s),load cell (N),extension (mm)", 0, true, false, false},
        {",", '.', "time (s),torque (N·m)", 0, false, false, false},
        {",", '.', "time (s),acceleration (g)", 0, false, false, false},
        {",", '.', "Elapsed,Peak hold (N),Position (cm)", 0, true, false, false},
        {",", '.', "s,N,mm,sample", 0, true, true, false},
    };
    int k = 0;
    for (const auto& w : ways)
        say(pin, fmt::format("way {}", ++k), written(w));
    const auto plain = written(ways[0]);
    std::string marked = plain;
    marked.replace(marked.find("110.50"), 6, "OL");
    marked.replace(marked.find("165.75"), 6, "");
    marked.replace(marked.find("221.00"), 6, "oops");
    say(pin, "marks", marked);
    say(pin, "twice", plain + plain);
    say(pin, "blank", plain + "\n" + plain.substr(plain.find('\n') + 1));
    say(pin, "kilo", plain + "time (s),force (kN),travel (mm)\n" + plain.substr(plain.find('\n') + 1));
    say(pin, "crlf", [&] {
        std::string out;
        for (const char c : plain)
            out += c == '\n' ? "\r\n" : std::string(1, c);
        return out;
    }());
    Hints hints;
    hints.load = "3";
    hints.travel = "2";
    hints.forceUnit = &quantity::unit("kN");
    hints.timeUnit = &quantity::unit("ms");
    say(pin, "told", plain, hints);
    for (const char* text :
         {"", "\n\n", "a,b,c\n", "1,2\n", "time,force\n0,1\n", "{\"t\":[1,2],\"f\":[3,4]}"})
        say(pin, fmt::format("little {}", text), text);
    pin.check("logs");
}

TEST(Pinned, FilesAsTheyCame) {
    Pin pin;
    std::vector<std::filesystem::path> files;
    for (const char* folder : {DEMO_LOGS, TEST_DATA "/sheets", TEST_DATA "/broken"})
        for (const auto& f : std::filesystem::recursive_directory_iterator(folder))
            if (f.is_regular_file()) files.push_back(f.path());
    std::sort(files.begin(), files.end());
    for (const auto& path : files) {
        const auto bytes = readFile(path.string());
        const auto name = path.parent_path().filename().string() + "/" + path.filename().string();
        if (!bytes) {
            pin.line(name + ": " + bytes.error().message);
            continue;
        }
        say(pin, name, *bytes);
        const auto table = readValues(*bytes);
        if (!table) {
            pin.line("  no table: " + table.error().message);
            continue;
        }
        pin.say("  table of {}, lost {}, conditions {}, not used {}", table->rows.size(), table->lost,
                table->hasConditions, table->notUsed.size());
        for (std::size_t i = 0; i < table->rows.size() && i < 12; ++i) {
            const auto& r = table->rows[i];
            pin.say("  row {} {} | {} | {} | {} {} {} {} | {}", r.line, r.option, r.condition, r.block,
                    r.value.word(), num(r.value.value), num(r.value.upper),
                    r.unit ? std::string(r.unit->symbol) : "-", r.note);
        }
        for (std::size_t i = 0; i < table->problems.size() && i < 4; ++i)
            pin.say("  line {} {}", table->problems[i].line, table->problems[i].reason);
    }
    pin.check("files");
}

TEST(Pinned, NamesOfFilesAndClocks) {
    Pin pin;
    const std::vector<std::vector<std::string>> sets = {
        {"wedge_dry_1.csv", "wedge_dry_2.csv", "wedge_wet_1.csv", "clamp_dry_1.csv"},
        {"Test 1 Oak dry.txt", "Test 2 Oak wet.txt", "Test 3 Ash dry.txt"},
        {"2026-05-04 epoxy 3.log", "2026-05-04 hide glue 1.log"},
        {"A1.csv", "A2.csv", "B1.csv"},
        {"M8-304-salt-01.csv", "M8-316-salt-02.csv", "M8-316-dry-03.csv"},
        {"run.csv"}};
    for (const auto& names : sets) {
        const auto pattern = patternOf(names);
        for (const auto& name : names) {
            const auto p = partsOf(name, pattern);
            std::string words;
            for (const auto& w : wordsOf(name))
                words += w + "/";
            pin.say("{}: {} | {} | {} [{}]", name, p.option, p.condition, p.replicate, words);
        }
    }
    for (const char* word : {"dry", "wet", "soaked", "24h", "oak", "-20C", "new", "aged", "epoxy"})
        pin.say("{} {}", word, soundsLikeCondition(word));
    for (const char* text :
         {"14:05", "14:05:10", "14:05:10.25", "2026-05-04 14:05:10", "2026-05-04T14:05:10.5Z",
          "04.05.2026 14:05:10", "5/4/2026 2:05:10 PM", "12:00:00 AM", "12:30 PM", "25:00", "1:2:3:4",
          "2026-02-30 00:00", "00:00:60", "14.05.26", "noon", "0:00.5"})
        pin.say("clock {} {}", text, num(clockSeconds(text)));
    for (const char* text : {"1,5", "1.5", "-1e3", "+7", ".5", "5.", "1 250,5", "1.250,5", "1,250.5", "1'250",
                             "abc", "1..2", "", "0x10", "1e", "−3", "nan", "inf"})
        pin.say("number {} {} {} {} {}", text, num(readNumber(text, '.')), num(readNumber(text, ',')),
                num(readGrouped(text, '.')), num(readGrouped(text, ',')));
    pin.check("names");
}

TEST(Pinned, TablesInManyLayouts) {
    Pin pin;
    const std::vector<std::string> all = {
        "option,condition,value,unit,state,upper,block,note\nOak,dry,1.5,kN,,,,\nOak,wet,1.2,kN,above,,b1,"
        "held\nAsh,dry,"
        "2,kN,between,2.5,,\nAsh,wet,3,kN,void,,,\n",
        "Option;Kraft (N)\nOak;1.250,5\nAsh;980\nElm;> 1.100\n",
        "Option,Peak (lbf)\nOak,412\nOak,at least 400\nAsh,\"1,250\"\nAsh,no break\n",
        "Sample,1,2,3\nOak,410,420,430\nAsh,380,,395\n",
        "Oak\tAsh\tElm\n410\t380\t500\n420\t390\t510\n",
        "option,value\nOak,4…5 kN\nAsh,<2 kN\nElm,~3 kN\nFir,12 ± 1 kN\n",
        "Oak,dry,410\nOak,wet,300\nAsh,dry,500\n",
        "option,value\n",
        "option,value\nOak,soft\n,5\nAsh,\n",
        "material,load kg\nOak,41\nmean,41\nAsh,39\n"};
    for (const auto& text : all) {
        const auto t = readValues(text);
        pin.line("== " + text);
        if (!t) {
            pin.line("refused: " + t.error().message);
            continue;
        }
        auto rows = t->rows;
        const auto one = unify(rows);
        pin.say("lost {} {} conditions {} unit {}", t->lost, t->lossText(), t->hasConditions,
                one ? *one ? std::string((*one)->symbol) : "-" : one.error().message);
        for (const auto& r : rows)
            pin.say("{} {} | {} | {} | {} | {} {} {} {}", r.line, r.option, r.condition, r.block, r.note,
                    r.value.word(), num(r.value.value), num(r.value.upper), r.asTyped);
        for (const auto& p : t->problems)
            pin.say("line {} {}", p.line, p.reason);
        for (const auto& n : t->notUsed)
            pin.line("not used: " + n);
    }
    pin.check("tables");
}

} // namespace
} // namespace anvil::tables
