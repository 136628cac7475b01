using BenchmarkDotNet.Configs;
using BenchmarkDotNet.Jobs;
using BenchmarkDotNet.Running;
using BenchmarkDotNet.Toolchains.InProcess.Emit;
using Vlei.Loops;

// Alone it measures, built as Release; with "once" it goes through each loop once, to show that they still run.
var once = args is ["once"];
var config = ManualConfig.Create(DefaultConfig.Instance)
    .AddJob((once ? Job.Dry : Job.ShortRun).WithToolchain(InProcessEmitToolchain.Instance))
    .WithArtifactsPath(Path.Combine(Path.GetTempPath(), "vlei-loops"))
    .WithOptions(once ? ConfigOptions.DisableOptimizationsValidator : ConfigOptions.Default);
var failed = new[] { typeof(ColumnLoops), typeof(WriterLoops) }.Select(loops => BenchmarkRunner.Run(loops, config))
    .Any(summary => summary.HasCriticalValidationErrors || summary.Reports.Length == 0 || summary.Reports.Any(report => !report.Success));
return failed ? 1 : 0;
