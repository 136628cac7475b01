using System.Diagnostics;
using Vlei.Tests.Documents;

namespace Vlei.Tests.Deliveries;

/// <summary>Against CUPS as it runs on most computers, with a printer that keeps what it gets.</summary>
public sealed class PrinterTests : IDisposable
{
    private const int Port = 6631;
    private const int Patience = 100;

    private readonly Tool _tool = new Tool().WithDemo();
    private Process? _server;

    public void Dispose()
    {
        _server?.Kill(entireProcessTree: true);
        _server?.WaitForExit();
        _server?.Dispose();
        _tool.Dispose();
    }

    [Fact]
    public void Pages_are_printed_as_they_are_and_a_printer_that_is_not_there_is_told()
    {
        if (Environment.UserName != "root")
        {
            Assert.Skip("the print server is started by root");
        }

        Start();
        _tool.Run([Server], "send", "balance-sheet", "--to", "printer:Front", "--yes", "--book", "reedwater").Done();
        var paper = _tool.PathOf("got/paper.pdf");
        for (var waited = 0; waited < Patience && !File.Exists(paper); waited++)
        {
            Thread.Sleep(Patience);
        }

        Thread.Sleep(5 * Patience);
        Assert.Equal(File.ReadAllBytes(_tool.PathOf("reedwater/out/balance-sheet/2026-05/balance-sheet.pdf")), File.ReadAllBytes(paper));
        var refused = _tool.Run([Server], "show", "balance-sheet", "--print", "Nowhere", "--book", "reedwater");
        Assert.Equal(75, refused.Status);
        Assert.Contains("The printer did not take Balance sheet: ", refused.Messages);
        Assert.Contains("does not exist", refused.Messages);
    }

    private static (string, string) Server => ("CUPS_SERVER", $"127.0.0.1:{Port}");

    // A raw queue whose device is a script of ours; the server comes to its files as somebody else.
    private void Start()
    {
        File.SetUnixFileMode(_tool.Folder, (UnixFileMode)0b111_101_101);
        foreach (var folder in new[] { "etc", "spool/tmp", "cache", "state", "log", "got" })
        {
            Directory.CreateDirectory(_tool.PathOf(folder));
        }

        Shell.Run(_tool.Folder, "cp", "-r", "/usr/lib/cups", "bin");
        _tool.Write(
            "bin/backend/keep",
            "#!/bin/sh\n[ $# -gt 0 ] || { echo 'direct keep \"Keep\" \"Keep\"'; exit 0; }\ncat \"${6:--}\" > \"${DEVICE_URI#keep:}\"\n");
        Shell.Run(_tool.Folder, "chmod", "755", "bin/backend/keep");
        Shell.Run(_tool.Folder, "chmod", "777", "got");
        Shell.Run(_tool.Folder, "chown", "-R", "root:lp", "spool", "cache");
        _tool.Write(
            "etc/cups-files.conf",
            string.Concat(
                new[]
                {
                    ("ServerRoot", "etc"), ("ServerBin", "bin"), ("RequestRoot", "spool"), ("TempDir", "spool/tmp"), ("CacheDir", "cache"),
                    ("StateDir", "state"), ("AccessLog", "log/access"), ("ErrorLog", "log/error"), ("PageLog", "log/page"),
                }.Select(line => $"{line.Item1} {_tool.PathOf(line.Item2)}\n")) + "SystemGroup root\n");
        _tool.Write(
            "etc/cupsd.conf",
            $"Listen 127.0.0.1:{Port}\nDefaultAuthType None\n<Location />\nOrder allow,deny\nAllow 127.0.0.1\n</Location>\n"
                + "<Policy default>\n<Limit All>\nOrder allow,deny\nAllow all\n</Limit>\n</Policy>\n");
        _server = Process.Start(new ProcessStartInfo(
            "cupsd", ["-f", "-c", _tool.PathOf("etc/cupsd.conf"), "-s", _tool.PathOf("etc/cups-files.conf")])
        {
            RedirectStandardError = true, RedirectStandardOutput = true,
        })!;
        for (var waited = 0; waited < Patience && !Admin("lpstat", "-r").Contains("is running", StringComparison.Ordinal); waited++)
        {
            Thread.Sleep(Patience);
        }

        _ = Admin("lpadmin", "-p", "Front", "-E", "-v", $"keep:{_tool.PathOf("got/paper.pdf")}", "-m", "raw");
    }

    private static string Admin(string program, params string[] arguments)
    {
        var start = new ProcessStartInfo(program, arguments) { RedirectStandardOutput = true, RedirectStandardError = true };
        start.Environment["CUPS_SERVER"] = Server.Item2;
        using var process = Process.Start(start)!;
        var errors = process.StandardError.ReadToEndAsync();
        var said = process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        return said + errors.GetAwaiter().GetResult();
    }
}
