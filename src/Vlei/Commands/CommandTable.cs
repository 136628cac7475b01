namespace Vlei.Commands;

/// <summary>Every command, in the order of the work. They are made only when they are needed, for the sake of the start.</summary>
internal static class CommandTable
{
    /// <summary>The commands, in parts, as help shows them.</summary>
    public static IReadOnlyList<(string Heading, IReadOnlyList<(string Name, Func<DocumentedCommand> Create)> Commands)> Parts { get; } =
    [
        ("Records in, records out",
        [
            ("demo", DemoCommand.Create), ("init", InitCommand.Create), ("map", MapCommand.Create), ("import", ImportCommand.Create),
            ("export", ExportCommand.Create), ("check", CheckCommand.Create),
        ]),
        ("Reports, and what is behind their figures",
        [
            ("reports", ReportsCommand.Create), ("fields", FieldsCommand.Create), ("help", HelpCommand.Create),
            ("show", ShowCommand.Create), ("browse", BrowseCommand.Create),
            ("trace", TraceCommand.Create), ("explain", ExplainCommand.Create),
        ]),
        ("Kept, and produced together",
        [
            ("save", SaveCommand.Create), ("group", GroupCommand.Create), ("run", RunCommand.Create), ("layout", LayoutCommand.Create),
            ("schema", SchemaCommand.Create),
        ]),
        ("Sent",
        [
            ("send", SendCommand.Create), ("outbox", OutboxCommand.Create), ("schedule", ScheduleCommand.Create),
        ]),
        ("Afterwards",
        [
            ("changes", ChangesCommand.Create), ("close", CloseCommand.Create), ("promise", PromiseCommand.Create),
        ]),
        ("Around it",
        [
            ("store", StoreCommand.Create), ("completion", CompletionCommand.Create), ("manual", ManualCommand.Create),
        ]),
    ];

    /// <summary>All of them.</summary>
    public static IEnumerable<(string Name, Func<DocumentedCommand> Create)> All => Parts.SelectMany(part => part.Commands);

    /// <summary>The command of a name; nothing where there is none.</summary>
    public static DocumentedCommand? Find(string name) => All.FirstOrDefault(command => command.Name == name).Create?.Invoke();
}
