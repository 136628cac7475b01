/* first-calls SYMBOLS COMMAND…: runs a program and appends to standard output the names of its functions that were called, each at
   its first call. SYMBOLS has the lines of `nm -n` that count. Every function starts with a breakpoint, which the first call of it
   takes away, so that nothing is missed and little time is lost. What the program writes goes to /dev/null. Ends as the program does;
   with 120 where it could not be watched, or was killed. */
#include <fcntl.h>
#include <stddef.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/ptrace.h>
#include <sys/user.h>
#include <sys/wait.h>
#include <unistd.h>

struct function { unsigned long address; char *name; unsigned char first; char called; };
static struct function *functions;
static size_t count;

enum { NOT_WATCHED = 120 };

static void fail(const char *what) { perror(what); exit(NOT_WATCHED); }

static void read_symbols(const char *path) {
    FILE *file = fopen(path, "r");
    char *line = NULL;
    size_t room = 0, allocated = 0;
    if (!file) fail(path);
    while (getline(&line, &room, file) > 0) {
        char kind, *name;
        unsigned long address;
        if (sscanf(line, "%lx %c %ms", &address, &kind, &name) != 3) continue;
        if (count == allocated && !(functions = realloc(functions, sizeof *functions * (allocated += 65536)))) fail("memory");
        functions[count++] = (struct function){ address, name, 0, 0 };
    }
    fclose(file);
    if (!count) { fprintf(stderr, "%s names no function\n", path); exit(NOT_WATCHED); }
}

/* The first of the functions at an address, of which there may be several where bodies are the same; or their number. */
static size_t find(unsigned long address) {
    size_t low = 0, high = count;
    while (low < high) {
        size_t middle = (low + high) / 2;
        if (functions[middle].address < address) low = middle + 1; else high = middle;
    }
    return low < count && functions[low].address == address ? low : count;
}

static void set_breakpoints(int memory) {
    unsigned long begin = functions[0].address, length = functions[count - 1].address + 1 - begin;
    unsigned char *code = malloc(length);
    if (!code || pread(memory, code, length, begin) != (ssize_t)length) fail("reading the program");
    for (size_t i = 0; i < count; i++) functions[i].first = code[functions[i].address - begin];
    for (size_t i = 0; i < count; i++) code[functions[i].address - begin] = 0xCC;
    if (pwrite(memory, code, length, begin) != (ssize_t)length) fail("writing the program");
    free(code);
}

/* Whether a thread stopped at a breakpoint of ours, which is then taken away and set back before. */
static int called(pid_t thread, int memory) {
    unsigned long address = ptrace(PTRACE_PEEKUSER, thread, offsetof(struct user_regs_struct, rip), 0) - 1;
    size_t first = find(address);
    if (first == count) return 0;
    if (!functions[first].called && pwrite(memory, &functions[first].first, 1, address) != 1) fail("writing the program");
    for (size_t i = first; i < count && functions[i].address == address && !functions[i].called; i++) {
        functions[i].called = 1;
        puts(functions[i].name);
    }
    ptrace(PTRACE_POKEUSER, thread, offsetof(struct user_regs_struct, rip), address);
    return NOT_WATCHED;
}

int main(int argc, char **argv) {
    int status, memory;
    char path[64];
    if (argc < 3) { fprintf(stderr, "first-calls SYMBOLS COMMAND...\n"); return NOT_WATCHED; }
    read_symbols(argv[1]);
    pid_t program = fork();
    if (program == 0) {
        int nowhere = open("/dev/null", O_RDWR);
        dup2(nowhere, 0), dup2(nowhere, 1), dup2(nowhere, 2);
        ptrace(PTRACE_TRACEME, 0, 0, 0);
        execv(argv[2], argv + 2);
        _exit(127);
    }
    if (waitpid(program, &status, 0) != program || !WIFSTOPPED(status)) {
        fprintf(stderr, "%s does not start, or may not be watched\n", argv[2]);
        return NOT_WATCHED;
    }

    ptrace(PTRACE_SETOPTIONS, program, 0, PTRACE_O_TRACECLONE | PTRACE_O_EXITKILL);
    snprintf(path, sizeof path, "/proc/%d/mem", program);
    if ((memory = open(path, O_RDWR)) < 0) fail(path);
    set_breakpoints(memory);
    ptrace(PTRACE_CONT, program, 0, 0);
    for (pid_t thread; (thread = waitpid(-1, &status, __WALL)) > 0;) {
        if (!WIFSTOPPED(status)) {
            if (thread == program) return WIFEXITED(status) ? WEXITSTATUS(status) : NOT_WATCHED;
            continue;
        }
        int signal = WSTOPSIG(status), event = status >> 16;
        int ours = event || signal == SIGSTOP || (signal == SIGTRAP && called(thread, memory));
        ptrace(PTRACE_CONT, thread, 0, ours ? 0 : signal);
    }
    return NOT_WATCHED;
}
