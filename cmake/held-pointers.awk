# Pointers and references into a study that are used after an event loop ran (`exec()`): a recording that ends
# meanwhile, or a timer, has the studies read anew, and they lie elsewhere. Ids are kept over it instead.
# So are those that what a dialog calls later takes from its function.
# Prints "file:line: name" for each; one that is taken again after it is fine.
FNR == 1 { reset() }
function reset() { delete held; ran = 0; later = "" }
/^[^ \t#\/}].*\{[ \t]*$/ { reset() } # a function begins
/^}/ { reset() }
{
    line = $0
    sub(/\/\/.*/, "", line)
    indent = match(line, /[^ ]/) - 1
    if (later != "" && line != "" && indent <= later) later = ""
    if (ran || later != "")
        for (name in held)
            if (line ~ "(^|[^A-Za-z0-9_.>])" name "(->|\\.|\\)|,)" || line ~ "\\*" name "([^A-Za-z0-9_]|$)") {
                if (line !~ "auto[*&] *" name " *=") print FILENAME ":" FNR ": " name
                delete held[name]
            }
    if (match(line, /(const )?auto ?[*&] ?[A-Za-z_]+ = [^;]*(study\(\)|studies\(\)|->pull\(|->specimen\(|->option\(|->condition\(|specimenAt\(|optionAt\(|conditionAt\(|pulls\b|specimens\b)/)) {
        name = line
        sub(/.*auto ?[*&] ?/, "", name)
        sub(/[^A-Za-z0-9_].*/, "", name)
        if (ran || later != "") delete held[name]
        else held[name] = FNR
    }
    if (later == "" && line ~ /(onDone|connect)\(.*\[[&=]/) later = indent
    if (line ~ /(\.|->)exec\(\)/ || line ~ /QMessageBox::(question|warning|information)|QInputDialog::get|QFileDialog::get/) ran = 1
}
