// Files that somebody hands over, and files that are written for somebody.
#include <anvil/tables/file.h>

#include <csignal>
#include <filesystem>
#include <fstream>
#include <gtest/gtest.h>
#include <sys/resource.h>
#include <sys/stat.h>
#include <unistd.h>

using namespace anvil;

namespace {

struct Written : testing::Test {
    std::filesystem::path folder;
    void SetUp() override {
        std::string name = (std::filesystem::temp_directory_path() / "written-XXXXXX").string();
        folder = ::mkdtemp(name.data());
    }
    void TearDown() override { std::filesystem::remove_all(folder); }
    std::string at(const char* name) const { return (folder / name).string(); }
    std::size_t count() const {
        std::size_t n = 0;
        for ([[maybe_unused]] const auto& entry : std::filesystem::directory_iterator(folder))
            ++n;
        return n;
    }
};

TEST_F(Written, IsWholeAndReplacesWhatWasThere) {
    ASSERT_TRUE(tables::writeFile(at("a.txt"), "one"));
    EXPECT_EQ(*tables::readFile(at("a.txt")), "one");
    ::chmod(at("a.txt").c_str(), 0640);
    ASSERT_TRUE(tables::writeFile(at("a.txt"), "two"));
    EXPECT_EQ(*tables::readFile(at("a.txt")), "two");
    struct stat info {};
    ::stat(at("a.txt").c_str(), &info);
    EXPECT_EQ(info.st_mode & 0777, 0640U) << "who may read it stays as it was";
    EXPECT_EQ(count(), 1U) << "nothing is left beside it";
}

TEST_F(Written, NeverThroughALinkNorOverAPipeAFolderOrAProject) {
    ASSERT_TRUE(tables::writeFile(at("a.txt"), "one"));
    ASSERT_EQ(::symlink(at("a.txt").c_str(), at("link").c_str()), 0);
    ASSERT_EQ(::symlink(at("nowhere").c_str(), at("loose").c_str()), 0);
    ASSERT_EQ(::mkfifo(at("pipe").c_str(), 0600), 0);
    std::string project(100, '\0');
    project.replace(0, 15, "SQLite format 3").replace(68, 4, "JAnv");
    std::ofstream(at("p.anvil"), std::ios::binary) << project;
    const auto before = count();
    const std::pair<const char*, const char*> refused[] = {{"link", "is a link"},
                                                           {"loose", "is a link"},
                                                           {"pipe", "a device or a pipe"},
                                                           {"", "is a folder"},
                                                           {"p.anvil", "is a project"}};
    for (const auto& [name, why] : refused) {
        const auto done = tables::writeFile(at(name), "two");
        ASSERT_FALSE(done) << name;
        EXPECT_NE(done.error().message.find(why), std::string::npos) << done.error().message;
    }
    EXPECT_FALSE(tables::writeFile("/dev/null", "two"));
    EXPECT_FALSE(tables::writeFile("", "two"));
    EXPECT_FALSE(tables::writeFile(at("no/such/folder.txt"), "two"));
    EXPECT_EQ(*tables::readFile(at("a.txt")), "one");
    EXPECT_EQ(count(), before);
}

/// A disk without room, as it looks from inside.
TEST_F(Written, OnAFullDiskItFailsAndWhatWasThereStands) {
    ASSERT_TRUE(tables::writeFile(at("a.txt"), "good"));
    std::signal(SIGXFSZ, SIG_IGN);
    rlimit before{};
    ::getrlimit(RLIMIT_FSIZE, &before);
    const rlimit little{1000, before.rlim_max};
    ::setrlimit(RLIMIT_FSIZE, &little);
    const auto done = tables::writeFile(at("a.txt"), std::string(5000, 'x'));
    ::setrlimit(RLIMIT_FSIZE, &before);
    ASSERT_FALSE(done);
    EXPECT_NE(done.error().message.find("cannot be written"), std::string::npos) << done.error().message;
    EXPECT_EQ(*tables::readFile(at("a.txt")), "good");
    EXPECT_EQ(count(), 1U);
}

} // namespace
