#!/usr/bin/perl
# Puts small faults into a room of the core, one at a time, and counts how many of them the room's own tests notice.
# Works on a copy of the tree that is configured already; see `./dev mutate`. Nothing but perl itself is needed.
#
#   mutate.pl TREE BUILD ROOM COUNT SEED EQUAL
#
# EQUAL lists faults that change nothing, each with its reason: "file | line as it stands | line with the fault |
# reason". The same seed gives the same faults as long as the sources are the same.
use strict;
use warnings;

my ($tree, $build, $room, $count, $seed, $equal) = @ARGV;
die "mutate.pl TREE BUILD ROOM COUNT SEED EQUAL\n" unless defined $equal;
my $test = "$build/tests/test_$room";

sub trimmed { my $t = shift; $t =~ s/^\s+|\s+$//g; return $t; }

# The code of a line at the places where it stands: texts, letters and remarks are blanked.
sub code_of {
    my $line = shift;
    $line =~ s/"(?:[^"\\]|\\.)*"/'~' x length $&/ge;
    $line =~ s/'(?:[^'\\]|\\.)'/'~' x length $&/ge;
    $line =~ s{//.*}{' ' x length $&}ge;
    return $line;
}

my %turned = ('<' => '>=', '>' => '<=', '<=' => '>', '>=' => '<', '==' => '!=', '!=' => '==',
              '+' => '-', '-' => '+', '*' => '/', '/' => '*', '&&' => '||', '||' => '&&');

# Every fault a line can have: the line as it would stand then.
sub faults_of {
    my $line = shift;
    my $code = code_of($line);
    return () if $code =~ /^\s*(#|static_assert|template|using|namespace|case\b|public:|private:|\*|\/)/;
    my @out;
    my $put = sub { my ($at, $length, $new) = @_; my $made = $line; substr($made, $at, $length) = $new; push @out, $made; };
    while ($code =~ / (<=|>=|==|!=|&&|\|\||[<>+*\/-]) (?=\S)/g) { $put->($-[1], length $1, $turned{$1}); }
    while ($code =~ /(?<![\w.'])(\d+\.\d+|\d+\.?)(?![\w.'])/g) { # a constant, by a tenth or by one
        my ($at, $text) = ($-[1], $1);
        $put->($at, length $text, $text =~ /\./ ? sprintf('%.10g', $text * 1.1 || 0.1) . ($text * 1.1 == int($text * 1.1) ? '.0' : '') : $text + 1);
    }
    while ($code =~ /\bstd::(max|min)\b/g) { $put->($-[1], 3, $1 eq 'max' ? 'min' : 'max'); }
    while ($code =~ /(?<=[( ])!(?=[\w(])/g) { $put->($-[0], 1, ''); }
    push @out, "\n" if $code =~ /^\s*if \(.*\) (return|continue|break)\b.*;\s*$/;      # a guard
    push @out, "\n" if $code =~ /^\s+[\w.\[\]>()-]+ [-+*\/]?= [^;]*;\s*$/ && $code !~ /^\s*(const|auto|return)\b/; # an assignment
    return @out;
}

my %equal;
open my $list, '<', $equal or die "$equal: $!\n";
while (<$list>) {
    next if /^\s*(#|$)/;
    my ($file, $was, $is) = map { trimmed($_) } split / \| /;
    $equal{"$file|$was|$is"} = 1;
}
close $list;

my %lines;
my @all;
for my $path (sort glob "$tree/src/$room/*.cpp") {
    open my $in, '<', $path or die "$path: $!\n";
    my @of = <$in>;
    close $in;
    $lines{$path} = \@of;
    for my $i (0 .. $#of) {
        push @all, [$path, $i, $_] for faults_of($of[$i]);
    }
}
srand $seed;
for (my $i = $#all; $i > 0; --$i) {
    my $j = int rand($i + 1);
    @all[$i, $j] = @all[$j, $i];
}

sub write_file {
    my ($path, @of) = @_;
    open my $out, '>', $path or die "$path: $!\n";
    print $out @of;
    close $out;
}
sub built { return system("CCACHE_DISABLE=1 cmake --build '$build' --target test_$room -- --quiet >/dev/null 2>&1") == 0; }
sub passes { return system("timeout 120 '$test' --gtest_brief=1 >/dev/null 2>&1") == 0; }

# Where an earlier run was killed its fault may be compiled still: its file is looked at again.
my $left = "$build/mutated";
if (open my $in, '<', $left) {
    chomp(my $path = <$in> // '');
    utime undef, undef, $path if -e $path;
}
built() && passes() or die "The tests of $room do not pass as they stand.\n";
my ($tried, $noticed, $same, $refused) = (0, 0, 0, 0);
for my $fault (@all) {
    last if $tried >= $count;
    my ($path, $i, $made) = @$fault;
    my $was = trimmed($lines{$path}[$i]);
    (my $file = $path) =~ s{^\Q$tree\E/}{};
    if ($equal{"$file|$was|" . trimmed($made)}) { ++$same; next; }
    my @of = @{$lines{$path}};
    $of[$i] = $made;
    write_file($left, $path);
    write_file($path, @of);
    if (!built()) { ++$refused; }
    else {
        ++$tried;
        if (passes()) {
            printf "%s:%d\n    %s\n    %s\n", $file, $i + 1, $was, trimmed($made) || '(nothing)';
            $| = 1;
        } else { ++$noticed; }
    }
    write_file($path, @{$lines{$path}});
}
built();
unlink $left;
printf "%s: %d of %d faults noticed (%.0f %%); %d did not compile, %d left out as equal, %d possible, seed %d.\n", $room,
    $noticed, $tried, $tried ? 100 * $noticed / $tried : 0, $refused, $same, scalar @all, $seed;
