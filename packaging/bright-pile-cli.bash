# Completion of bright-pile-cli for bash: options, their values and commands are what the program itself names.
_bright_pile_cli() {
    local program=${COMP_WORDS[0]} word=${COMP_WORDS[COMP_CWORD]} before=${COMP_WORDS[COMP_CWORD - 1]} command="" help
    local i
    for ((i = 1; i < COMP_CWORD; ++i)); do
        [[ ${COMP_WORDS[i]} != -* ]] && { command=${COMP_WORDS[i]}; break; }
    done
    COMPREPLY=()
    if [[ -z $command ]]; then
        help=$("$program" --help 2>/dev/null | sed -n '/^Subcommands:/,$s/^  \([a-z]*\) .*/\1/p')
        mapfile -t COMPREPLY < <(compgen -W "$help --help --version" -- "$word")
        return
    fi
    help=$("$program" "$command" --help 2>/dev/null)
    if [[ $before == --* ]]; then
        local values
        values=$(sed -n "s/^  ${before} [A-Z]*:{\([^}]*\)}.*/\1/p" <<<"$help" | tr ',' ' ')
        [[ -n $values ]] && { mapfile -t COMPREPLY < <(compgen -W "$values" -- "$word"); return; }
    fi
    if [[ $word == -* ]]; then
        local options
        options=$(grep -oE '^  (-[a-z],)?--[a-z-]+' <<<"$help" | grep -oE -- '--[a-z-]+')
        mapfile -t COMPREPLY < <(compgen -W "$options" -- "$word")
    elif [[ $command == practice && $COMP_CWORD -eq $((i + 1)) ]]; then
        mapfile -t COMPREPLY < <(compgen -W "$(sed -n 's/^  SCENE [A-Z]*:{\([^}]*\)}.*/\1/p' <<<"$help" | tr ',' ' ')" -- "$word")
    else
        compopt -o filenames 2>/dev/null
        mapfile -t COMPREPLY < <(compgen -f -- "$word")
    fi
}
complete -F _bright_pile_cli bright-pile-cli
