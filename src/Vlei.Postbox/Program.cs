using System.Collections.Concurrent;
using System.Net;
using System.Net.Sockets;
using Vlei.Postbox;

const int Usage = 2;
const int Busy = 75;
if (PostboxOptions.Read(args) is not { } options)
{
    Console.Error.WriteLine(PostboxOptions.Usage);
    return args is ["--help"] ? 0 : Usage;
}

Directory.CreateDirectory(options.Folder);
var number = Directory.EnumerateFiles(options.Folder, "*.eml").Select(path => Path.GetFileNameWithoutExtension(path))
    .Select(name => int.TryParse(name, out var known) ? known : 0).DefaultIfEmpty().Max();
var seen = new ConcurrentDictionary<string, int>();

// Only this computer can reach it.
using var listener = new TcpListener(IPAddress.Loopback, options.Port);
try
{
    listener.Start();
}
catch (SocketException taken)
{
    Console.Error.WriteLine($"vlei-postbox: port {options.Port} cannot be listened at: {taken.Message}");
    return Busy;
}

Console.WriteLine($"ready {((IPEndPoint)listener.LocalEndpoint).Port}");
while (true)
{
    var client = listener.AcceptTcpClient();
    _ = Task.Run(() =>
    {
        using (client)
        using (var session = new PostboxSession(options, seen, () => Interlocked.Increment(ref number)))
        {
            try
            {
                session.Run(client);
            }
            catch (Exception gone) when (gone is IOException or SocketException)
            {
                // The other side went away.
            }
        }
    });
}
