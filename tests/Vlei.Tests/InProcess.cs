using Vlei.Books;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Desk;
using Vlei.Output;

namespace Vlei.Tests;

/// <summary>
/// What the program answers, asked of the desk in this process: for tests that ask so much that starting a process each time
/// would be most of their work. The command line itself is tested by a sample of the same.
/// </summary>
internal sealed class InProcess(string book)
{
    private static readonly ReportFormat Csv = ReportFormat.Named("csv", ["csv"])[0];

    private readonly ReportDesk _desk = new(Book.Open(book), null);

    /// <summary>Opens a report, with options as they are typed.</summary>
    public OpenReport Open(string report, params IReadOnlyList<string> typed)
    {
        var options = new Dictionary<string, IReadOnlyList<string>>();
        for (var place = 0; place < typed.Count; place++)
        {
            var option = ReportOptions.All.First(known => $"--{known.Name}" == typed[place]);
            var text = option.ValueName is null ? "true" : typed[++place];

            // The program is where its book is.
            text = option == LookOptions.Logo ? Path.Combine(Path.GetDirectoryName(book)!, text) : text;
            options[option.Name] = [.. options.GetValueOrDefault(option.Name, []), text];
        }

        return _desk.Open(new ReportOrder(report, options));
    }

    /// <summary>The lines of a report as CSV, each cut into its values, without the head.</summary>
    public List<string[]> Lines(string report, params IReadOnlyList<string> typed)
    {
        using var open = Open(report, typed);
        using var written = new MemoryStream();
        Csv.Write(open.Build(), written, Surface.OfFile(null));
        return [.. System.Text.Encoding.UTF8.GetString(written.ToArray()).TrimEnd().Split('\n').Skip(1)
            .Select(line => NaiveRecords.Values(line).ToArray())];
    }

    /// <summary>Whether a report can be built.</summary>
    public bool Takes(string report, params IReadOnlyList<string> typed)
    {
        try
        {
            using var open = Open(report, typed);
            return open.Build().Rows.Count >= 0;
        }
        catch (ProblemException)
        {
            return false;
        }
    }

    /// <summary>The records behind a figure, as the program lists them.</summary>
    public static Report Trace(OpenReport open, Report report, string row, string column) =>
        Core.Tables.Trace.Of(report, open.Context.Ledger, row, column, all: false);
}
