# Lists the functions of public headers that say nothing of themselves: file:line: declaration. One is documented by
# the comment above it, by one behind it, or by that of the function right above it (overloads, a pair that belongs
# together). Constructors, operators and what is not public need none.
function trimmed(s) { gsub(/^[ \t]+|[ \t]+$/, "", s); return s }
FNR == 1 { depth = 0; documented = 0; hidden = 0; pending = "" }
{
    line = $0
    code = line
    sub(/\/\/.*/, "", code)
    text = trimmed(code)
    comment = (line ~ /\/\/\//)
    if (text ~ /^(public|protected|private):$/) { hidden = (text != "public:"); documented = 0; next }
    if (text ~ /^(class|struct) [A-Za-z_]+( final)?( :.*)?\{?$/ && text !~ /;$/) { hidden = (text ~ /^class/); documented = 0; next }
    if (text == "};") { hidden = 0; documented = 0; next }
    if (text == "") { # a comment, or nothing
        if (line ~ /^[ \t]*\/\/\//) documented = 1
        else if (line !~ /^[ \t]*\/\//) documented = 0
        next
    }
    if (pending != "") { # a declaration goes on
        pending = pending " " text
        if (text ~ /[;}]$/ || text ~ /\{/) { report(); }
        next
    }
    if (hidden) next
    if (text ~ /^[A-Za-z_][A-Za-z0-9_:<>,&* ]*[&* >]([a-z][A-Za-z0-9_]*)\(/ &&
        text !~ /^(return|using|if|for|while|else|static_assert|namespace|typedef|friend|template class|case|switch)[ (]/ && text !~ /operator/) {
        pending = text; start = FNR; was = documented || comment
        if (text ~ /[;}]$/ || text ~ /\{/) report()
        next
    }
}
function report() {
    if (!was && pending !~ /= (default|delete);$/) { printf "%s:%d: %s\n", FILENAME, start, pending; ++count }
    documented = 1 # of those right below
    pending = ""
}
END { exit count > 0 }
