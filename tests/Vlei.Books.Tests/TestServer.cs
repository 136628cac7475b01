using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using Vlei.Books.Store.Postgres;

namespace Vlei.Books.Tests;

/// <summary>A real server of PostgreSQL on this machine alone, with a data folder of its own, gone when the tests are.</summary>
public class TestServer : IDisposable
{
    private static readonly string Programs = Directory.EnumerateDirectories("/usr/lib/postgresql").Max(StringComparer.Ordinal)! + "/bin";

    private readonly string _folder = Directory.CreateTempSubdirectory("vlei-server-").FullName;
    private readonly int _port = FreePort();

    /// <summary>Starts it.</summary>
    public TestServer()
    {
        if (Environment.UserName == "root")
        {
            Run("chown", "postgres", _folder);
        }

        AsOwner("initdb", "-D", $"{_folder}/data", "-U", "owner", "--auth=trust", "-E", "UTF8", "--locale=C", "--no-sync");
        Start();
    }

    /// <summary>The port that it listens on, at 127.0.0.1.</summary>
    public int Port => _port;

    /// <summary>A folder that the server may write to.</summary>
    public string Folder => _folder;

    /// <summary>Where a login finds a book, or all of them.</summary>
    public PostgresAddress Address(string user, string? book = null) => PostgresAddress.Parse(string.Create(
        CultureInfo.InvariantCulture, $"postgresql://{user}@127.0.0.1:{_port}/firm")).With(book);

    /// <summary>Starts it again.</summary>
    public void Start() => AsOwner(
        "pg_ctl", "-D", $"{_folder}/data", "-l", $"{_folder}/log", "-w", "-o",
        string.Create(CultureInfo.InvariantCulture, $"-p {_port} -k {_folder} -c listen_addresses=127.0.0.1 -c fsync=off"), "start");

    /// <summary>
    /// Lets it speak TLS, as <c>localhost</c>, with a certificate that is signed by nobody but itself. Gives the file of that.
    /// </summary>
    public string Secure()
    {
        var (key, certificate) = ($"{_folder}/data/server.key", $"{_folder}/data/server.crt");
        AsOwner(
            "openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-keyout", key, "-out", certificate, "-days", "2", "-subj",
            "/CN=localhost", "-addext", "subjectAltName=DNS:localhost");
        AsOwner("sh", "-c", $"chmod 600 '{key}' && echo 'ssl = on' >> '{_folder}/data/postgresql.auto.conf'");
        Sql("SELECT pg_reload_conf()");
        var own = Path.Combine(Path.GetTempPath(), $"vlei-certificate-{_port}.pem");
        File.WriteAllText(own, Run("cat", certificate));
        return own;
    }

    /// <summary>Stops it as a failure of power would.</summary>
    public void Kill() => AsOwner("pg_ctl", "-D", $"{_folder}/data", "-m", "immediate", "-w", "stop");

    /// <summary>Runs SQL as the owner.</summary>
    public string Sql(string sql, string database = "firm") => Run(
        $"{Programs}/psql", "-h", "127.0.0.1", "-p", _port.ToString(CultureInfo.InvariantCulture), "-U", "owner", "-At", "-v",
        "ON_ERROR_STOP=1", "-c", sql, database);

    /// <inheritdoc/>
    public virtual void Dispose()
    {
        GC.SuppressFinalize(this);
        Kill();
        Directory.Delete(_folder, recursive: true);
    }

    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }

    // The server does not run as root.
    private static void AsOwner(string program, params string[] arguments)
    {
        var own = $"{Programs}/{program}";
        string[] whole = [File.Exists(own) ? own : program, .. arguments];
        _ = Environment.UserName == "root" ? Run("runuser", ["-u", "postgres", "--", .. whole]) : Run(whole[0], whole[1..]);
    }

    internal static string Run(string program, params string[] arguments)
    {
        // What it starts goes on, and must not hold on to what is read here.
        using var process = Process.Start(new ProcessStartInfo(
            "sh",
            ["-c", "out=$(mktemp) && \"$@\" > \"$out\" 2>&1 < /dev/null; status=$?; cat \"$out\"; rm -f \"$out\"; exit $status", "sh",
                program,
                .. arguments])
        {
            RedirectStandardOutput = true, WorkingDirectory = "/",
        })!;
        var output = process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        Assert.True(process.ExitCode == 0, $"{program} {string.Join(' ', arguments)}: {output}");
        return output;
    }
}

/// <summary>A server with the tables of a firm.</summary>
public sealed class TestFirm : TestServer
{
    /// <summary>Makes the tables.</summary>
    public TestFirm()
    {
        Sql("CREATE DATABASE firm", "postgres");
        PostgresServer.Init(Address("owner"));
        foreach (var login in new[] { "anna", "ben" })
        {
            Sql($"CREATE ROLE {login} LOGIN");
        }
    }
}
