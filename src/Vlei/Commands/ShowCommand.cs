using System.CommandLine;

namespace Vlei.Commands;

/// <summary><c>vlei show</c>: builds a report and writes it.</summary>
internal static class ShowCommand
{
    /// <summary>The command.</summary>
    public static Command Create()
    {
        var command = new DocumentedCommand("show", "Build a report")
        {
            Examples =
            [
                .. Catalogue.All.SelectMany(report => report.Examples.Select(example =>
                    ($"vlei show {report.Key} {example.Options}", example.Meaning))),
            ],
        };
        var arguments = new ReportArguments(command);
        var destination = new ReportDestination(command);
        command.SetAction(result =>
        {
            var format = destination.FormatOf(result);
            return arguments.With(result, (definition, context, request) => definition.Each is { } each && destination.IsFolder(result)
                ? destination.WriteEach(result, format, each(context, request).Select(one => (one.Name, definition.Build(context, one.Request))))
                : destination.Write(result, format, definition.Build(context, request)));
        });
        return command;
    }
}
